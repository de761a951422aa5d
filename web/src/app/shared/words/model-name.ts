import { classOfTemplate } from '@voltrek/core/template';
import { messagesOf } from './messages-of';
import { CLASS_WORDS } from './words';

const T = messagesOf('unknownModel');

/**
 * Returns the name of a model: maker and model, or that it is an unknown machine of its class.
 *
 * @example
 * modelNameOf({ id: 'unknown-truck', maker: 'Unknown', model: 'truck' }); // 'Unknown truck'
 */
export function modelNameOf({
  id,
  maker,
  model,
}: {
  readonly id: string;
  readonly maker: string;
  readonly model: string;
}): string {
  const machineClass = classOfTemplate(id);
  return machineClass ? T.name({ machineClass: CLASS_WORDS[machineClass] }) : `${maker} ${model}`;
}

/** Returns the name of a vehicle's model. */
export function vehicleModelName({
  modelId,
  modelName,
}: {
  readonly modelId: string;
  readonly modelName: string;
}): string {
  const machineClass = classOfTemplate(modelId);
  return machineClass ? T.name({ machineClass: CLASS_WORDS[machineClass] }) : modelName;
}
