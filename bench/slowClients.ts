import { connect } from 'node:net'

// Clients that take a kilobyte a second each, for as long as this process lives.
const [, , address = '', count = '0'] = process.argv
const { hostname, port, pathname } = new URL(address)
let connected = 0

for (let index = 0; index < Number(count); index++) {
  // A small window, so that the system between the two does not take the whole file at once.
  const socket = connect({ host: hostname, port: Number(port) })
  socket.setNoDelay(true)
  socket.on('connect', () => {
    socket.pause()
    // Each as from an address of its own: it is not the turns of one visitor that are measured.
    socket.write(
      `GET ${pathname} HTTP/1.1\r\nHost: ${hostname}\r\nX-Forwarded-For: 198.51.${index >> 8}.${index & 255}\r\nUser-Agent: Mozilla/5.0 (slow)\r\n\r\n`,
    )
    if (++connected === Number(count)) console.log('all connected')
  })
  setInterval(() => socket.read(1000), 1000)
}
