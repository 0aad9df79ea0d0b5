import { GlobalRegistrator } from '@happy-dom/global-registrator'

// A page for the parts to stand on. To be imported before them.
GlobalRegistrator.register({ url: 'http://shop/' })

// Nothing is laid out here; a list that draws what is in sight needs to believe that it has a height.
Object.defineProperty(HTMLElement.prototype, 'clientHeight', { get: () => 600 })
Object.defineProperty(HTMLElement.prototype, 'clientWidth', { get: () => 800 })
