import { createServer } from 'node:http'
import { ZipArchive } from 'archiver'
import yazl from 'yazl'

// What streaming zip libraries do with the same files, nothing packed.
const [, , port = '0', ...files] = process.argv

createServer((request, response) => {
  response.writeHead(200, { 'Content-Type': 'application/zip' })
  if (request.url === '/yazl') {
    const zip = new yazl.ZipFile()
    files.forEach((path, index) => zip.addFile(path, `${index}.bin`, { compress: false }))
    zip.end()
    zip.outputStream.pipe(response)
  } else {
    const zip = new ZipArchive({ store: true, highWaterMark: 1024 * 1024 })
    zip.pipe(response)
    files.forEach((path, index) => zip.file(path, { name: `${index}.bin` }))
    void zip.finalize()
  }
}).listen(Number(port), '127.0.0.1')
