// Reads a drawing again with libraries of others, and prints what they found: node reread.mjs gltf|dxf FILE
import { readFileSync } from 'node:fs'
import DxfParser from 'dxf-parser'
import validator from 'gltf-validator'

const [kind, file] = process.argv.slice(2)
if (kind === 'gltf') {
    const { issues, info } = await validator.validateBytes(new Uint8Array(readFileSync(file)))
    console.log(
        JSON.stringify({ errors: issues.numErrors, warnings: issues.numWarnings, messages: issues.messages, info }),
    )
} else {
    const { entities, tables } = new DxfParser().parseSync(readFileSync(file, 'latin1'))
    console.log(
        JSON.stringify({
            layers: Object.keys(tables.layer.layers),
            entities: entities.map(({ type, layer, vertices, center, radius, text }) => ({
                type,
                layer,
                ...(vertices ? { from: vertices[0], to: vertices[1] } : {}),
                ...(center ? { center, radius } : {}),
                ...(text ? { text } : {}),
            })),
        }),
    )
}
