import S3rver from 's3rver';

/** A small S3 server as a process of its own: `runS3Server.ts FOLDER PORT`. It says at which port it is. */
const [directory = '', port = '0'] = process.argv.slice(2);
const server = new S3rver({
  address: '127.0.0.1',
  port: Number(port),
  directory,
  silent: true,
  configureBuckets: [{ name: 'kites', configs: [] }],
});
const at = await server.run();
console.log(`at ${at.port}`);
