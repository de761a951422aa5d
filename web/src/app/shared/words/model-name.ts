import { classOfTemplate } from '@voltrek/core/template';
import type { MachineSummary, VehicleSummary } from '@voltrek/contracts';
import { messagesOf } from './messages-of';
import { CLASS_WORDS } from './words';

const T = messagesOf('unknownModel');

/** Returns the name of an entry that stands for a class; null where the machine has a maker and a model. */
function unknownName(id: string): string | null {
  const machineClass = classOfTemplate(id);
  return machineClass && T.name({ machineClass: CLASS_WORDS[machineClass] });
}

/**
 * Returns the name of a model: maker and model, or that it is an unknown machine of its class.
 *
 * @example
 * modelNameOf({ id: 'unknown-truck', maker: 'Unknown', model: 'truck' }); // 'Unknown truck'
 */
export const modelNameOf = ({ id, maker, model }: Pick<MachineSummary, 'id' | 'maker' | 'model'>): string =>
  unknownName(id) ?? `${maker} ${model}`;

/** Returns the name of a vehicle's model. */
export const vehicleModelName = ({
  modelId,
  modelName,
}: Pick<VehicleSummary, 'modelId' | 'modelName'>): string => unknownName(modelId) ?? modelName;
