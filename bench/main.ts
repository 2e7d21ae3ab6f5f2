/** `npm run bench`: prints ratios measured in one run. `npm run bench core` or `app` runs a part of it. */
import { benchApp, benchPattern } from './app.ts'
import { benchAudit } from './audit.ts'
import { benchBulk } from './bulk.ts'
import { benchCore } from './core.ts'
import { benchData } from './data.ts'
import { benchFetching } from './fetching.ts'
import { benchLineUp } from './line-up.ts'
import { benchMeasure } from './measure.ts'
import { benchStructure } from './structure.ts'
import { benchText } from './text.ts'

const part = process.argv[2]
if (!part || part === 'core') benchCore()
if (!part || part === 'measure') await benchMeasure()
if (!part || part === 'app') await benchApp()
if (!part || part === 'pattern') await benchPattern()
if (!part || part === 'structure') await benchStructure()
if (!part || part === 'data') await benchData()
if (!part || part === 'fetching') await benchFetching()
if (!part || part === 'audit') await benchAudit()
if (!part || part === 'bulk') await benchBulk()
if (!part || part === 'text') await benchText()
if (!part || part === 'line-up') await benchLineUp()
