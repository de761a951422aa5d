import { createGenerator } from 'ts-json-schema-generator';

/** The JSON Schema of what each address answers, from the types in contracts. */
export function answerSchemas(root) {
  const schema = createGenerator({
    path: `${root}/contracts/src/api.ts`,
    tsconfig: `${root}/contracts/tsconfig.json`,
    type: 'Answers',
    skipTypeCheck: true,
    additionalProperties: false,
    jsDoc: 'none',
    topRef: false,
    expose: 'all',
  }).createSchema('Answers');
  return { answers: schema.properties, definitions: schema.definitions };
}
