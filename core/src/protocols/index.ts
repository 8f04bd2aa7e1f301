export { protocolRequest, withWords } from './protocolRequest.ts';
export { PROTOCOL_FILE_FORMAT, readProtocolFile, writeProtocolFile } from './protocolFile.ts';
