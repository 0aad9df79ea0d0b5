// Writes the types of a platform's profile from its published JSON Schema.
import { readFile, writeFile } from 'node:fs/promises'
import { compile } from 'json-schema-to-typescript'

const [from, to] = process.argv.slice(2)
const schema = JSON.parse(await readFile(from, 'utf8'))
// That a limit has at least one of its parts is checked by the server; as a type it would hide what the parts are.
delete schema.properties.fields.items.properties.limit.anyOf
await writeFile(
  to,
  await compile(schema, 'PlatformProfile', {
    additionalProperties: false,
    bannerComment: '/* Made from the JSON Schema; never edited. */',
  }),
)
