import { anId } from '@core/testing/ids.ts'
import { describe, expect, it } from 'vitest'
import { type ShopAnswer } from '@contract/shop.ts'
import { areaPaths, guidePaths } from './holdarea.ts'

describe('what a tablet holds of its area', () => {
  it('is each of its guns with its readings, the usual walk there, and nothing of elsewhere', () => {
    const stations = [
      { id: 'stn_1', areaId: 'area_a' },
      { id: 'stn_2', areaId: 'area_b' },
    ] as unknown as ShopAnswer['stations']
    const paths = areaPaths({ stations }, 'area_a')
    expect(paths).toContain('/gun/stn_1')
    expect(paths).toContain('/reading?stationId=stn_1')
    expect(paths).toContain('/liner?stationId=stn_1')
    expect(paths.filter((p) => p.includes('stn_2'))).toEqual([])
    expect(paths.some((p) => p.startsWith('/walk?') && p.includes('areaId=area_a'))).toBe(true)
  })
  it('and the guides each gun has, asked for as their page asks for them', () => {
    const guides = (['tip', 'liner'] as const).map((key) => ({ key, name: key, minutes: 3 }))
    expect(guidePaths({ stationId: anId('station', 'stn_1'), guides })).toEqual([
      '/guide?stationId=stn_1&guide=tip',
      '/guide?stationId=stn_1&guide=liner',
    ])
  })
})
