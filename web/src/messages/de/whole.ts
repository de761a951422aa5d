import house from './house.json';
import job from './job.json';
import practice from './practice.json';
import terms from './terms.json';

/** All German messages but those of the first page. */
export const whole = { ...house, ...job, ...practice, ...terms };
