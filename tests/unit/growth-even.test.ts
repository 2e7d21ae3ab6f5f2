import { growthTests } from '../fixtures/growth.ts'

growthTests(0)
