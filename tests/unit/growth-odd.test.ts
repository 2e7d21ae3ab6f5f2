import { growthTests } from '../fixtures/growth.ts'

growthTests(1)
