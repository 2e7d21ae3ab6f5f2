/** Whole-page HTML conformance for the command line; loaded when it is asked for. */
export { conformanceOf } from '../core/conformance/conformance.ts'
