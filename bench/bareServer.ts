import { createReadStream, statSync } from 'node:fs'
import { createServer } from 'node:http'

// What Node does at the most: a file streamed in 1 MiB chunks, and bytes answered from memory.
const [, , file = '', port = '0'] = process.argv
const { size } = statSync(file)
const small = Buffer.alloc(20_000, 'x')

createServer((request, response) => {
  if (request.url === '/file') {
    response.writeHead(200, { 'Content-Type': 'application/octet-stream', 'Content-Length': size })
    createReadStream(file, { highWaterMark: 1024 * 1024 }).pipe(response)
  } else if (request.headers['if-none-match']) {
    response.writeHead(304, { ETag: request.headers['if-none-match'] }).end()
  } else {
    response.writeHead(200, { 'Content-Type': 'application/pdf', 'Content-Length': small.length })
    response.end(small)
  }
}).listen(Number(port), '127.0.0.1')
