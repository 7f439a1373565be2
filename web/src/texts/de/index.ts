import { de as glass } from './glass';
import { de as help } from './help';
import { de as house } from './house';
import { de as inside } from './inside';
import { de as labels } from './labels';
import { de as outside } from './outside';
import { de as rehearsal } from './rehearsal';
import { de as shell } from './shell';
import { de as times } from './times';
import { registerGermanTexts } from '../germanTexts';

registerGermanTexts({ glass, help, house, inside, labels, outside, rehearsal, shell, times });
