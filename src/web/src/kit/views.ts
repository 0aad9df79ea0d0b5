/** The view that the address names; the first where it names none. */
export const viewIn = <V extends string>(views: readonly (readonly [V, ...unknown[]])[], name: string | null): V =>
  views.find(([key]) => key === name)?.[0] ?? views[0][0]
