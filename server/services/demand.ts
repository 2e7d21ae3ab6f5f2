/** Demand for phrases: the service that a team names, or the stand-in. */
import { demandAnswerSchema, type DemandAnswer, type DemandQuestion } from '../../core/keywords/demand.ts'
import { askService, type Asked, type Service } from './ask.ts'

export const demandService: Service = {
  name: 'The demand service',
  variable: 'KEEN_QUILL_DEMAND',
  standIn: '/stand-ins/demand',
}

export const askDemand = (question: DemandQuestion, signal?: AbortSignal): Promise<Asked<DemandAnswer>> =>
  askService(demandService, { ...question }, demandAnswerSchema, signal)
