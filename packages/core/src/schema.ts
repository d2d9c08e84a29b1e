/**
 * The published JSON Schema (2020-12) of the project document, made from the model's classes: their validation rules
 * through class-validator-jsonschema, their structure, units and defaults from the field registry. Kept off the main
 * entry for its weight.
 */
import 'reflect-metadata/lite';
import { ValidationTypes } from 'class-validator';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { type Constructor, classAbout, classFields } from './model/field';
import { Project } from './model/project';

export type JsonSchema = Record<string, unknown>;

/** The document's classes as schemas, by class name; references are written with the prefix. */
export function schemaParts(prefix = '#/$defs/'): Record<string, JsonSchema> {
  const rules = validationMetadatasToSchemas({
    additionalConverters: {
      [ValidationTypes.NESTED_VALIDATION]: {},
      isGroup: {},
      isValue: { type: ['number', 'string', 'boolean'], maxLength: 40 },
    } as never,
  }) as Record<string, JsonSchema>;
  const parts: Record<string, JsonSchema> = {};
  describe(Project, rules, prefix, parts);
  return parts;
}

/** The whole schema: a project document. */
export function projectSchema(): JsonSchema {
  const { Project: root, ...defs } = schemaParts();
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Insidia project',
    description: 'Metres, seconds, degrees, hit points; shares and chances from 0 to 1. What has a default may be left out.',
    ...root,
    $defs: defs,
  };
}

function describe(type: Constructor, rules: Record<string, JsonSchema>, prefix: string, parts: Record<string, JsonSchema>): void {
  if (parts[type.name]) return;
  const rule = ruleOf(type, rules);
  const fields = classFields(type);
  const sample = new type() as Record<string, unknown>;
  const properties: Record<string, JsonSchema> = {};
  const about = classAbout(type);
  parts[type.name] = { type: 'object', ...(about && { description: about }), properties, additionalProperties: false };
  for (const [name, schema] of Object.entries(rule.properties as Record<string, JsonSchema>)) {
    properties[name] = { ...schema };
    const described = descriptionOf(fields, name);
    if (described) properties[name].description = described;
    const nested = fields?.groups.get(name)?.() ?? fields?.lists.get(name)?.();
    if (nested) {
      const reference = { $ref: prefix + nested.name };
      properties[name] = {
        ...(fields?.lists.has(name) ? { ...schema, type: 'array', items: reference } : reference),
        ...(described && { description: described }),
      };
      describe(nested, rules, prefix, parts);
    } else if (sample[name] !== undefined) properties[name].default = sample[name];
  }
  const required = ((rule.required as string[] | undefined) ?? []).filter((name) => properties[name] && sample[name] === undefined);
  if (required.length) parts[type.name].required = required;
}

/** "Cooldown (s): until this attack may be used again". */
function descriptionOf(fields: ReturnType<typeof classFields>, name: string): string | undefined {
  const { label, about } = fields?.said.get(name) ?? {};
  const unit = fields?.quantities.get(name)?.unit;
  const called = label && `${label}${unit ? ` (${unit})` : ''}`;
  return called && about ? `${called}: ${about}` : (about ?? called);
}

/** A class that adds nothing to its parent has the parent's rules. */
function ruleOf(type: Constructor, rules: Record<string, JsonSchema>): JsonSchema {
  return rules[type.name] ?? ruleOf(Object.getPrototypeOf(type) as Constructor, rules);
}
