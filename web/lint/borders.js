/**
 * The borders of the front end, held by the linter: what may import what, and that looks come from the theme.
 *
 *   app      everything
 *   features their own, shared, and of another feature only its door (index.ts; its pages.ts is the router's)
 *   shared   nothing but shared
 *   model    plain TypeScript, so that it is tested without a browser
 */

const REACT = /^(react|react-dom|react-router|react-hook-form|@chakra-ui\/|@tanstack\/react-|@dnd-kit\/|lucide-react)/

/** Where a file stands: `features/reach/view/MapBand.tsx`. */
function placeOf(file) {
  const path = file.replaceAll('\\', '/')
  return path.slice(path.lastIndexOf('/src/') + '/src/'.length)
}

/** The place that an import leads to, or the package. */
function targetOf(place, source) {
  if (!source.startsWith('.')) {
    return source
  }
  const parts = place.split('/').slice(0, -1)
  for (const part of source.split('/')) {
    if (part === '..') {
      parts.pop()
    } else if (part !== '.') {
      parts.push(part)
    }
  }
  return parts.join('/')
}

function featureOf(place) {
  return place.startsWith('features/') ? place.split('/')[1] : undefined
}

function troubleWith(place, target) {
  const own = featureOf(place)
  const other = featureOf(target)
  if (place.startsWith('shared/') && (other !== undefined || target.startsWith('app/'))) {
    return 'shared/ knows neither features nor the application.'
  }
  if (own !== undefined && target.startsWith('app/')) {
    return 'A feature does not know the application; what both need belongs in shared/.'
  }
  if (other !== undefined && other !== own) {
    const inside = target.split('/').slice(2).join('/')
    const door = inside === '' || inside === 'index' || (inside === 'pages' && place === 'app/router.tsx')
    if (!door) {
      return `Only the door of another feature may be imported: features/${other}.`
    }
  }
  if (
    /\/model\//.test(place) &&
    !/\.test\.tsx?$/.test(place) &&
    (REACT.test(target) || /\/(view|state)\//.test(target))
  ) {
    return 'model/ is plain TypeScript: what knows React belongs in state/ or view/.'
  }
  return undefined
}

const imports = {
  create(context) {
    const place = placeOf(context.filename)
    const look = node => {
      const source = node.source?.value
      const trouble = typeof source === 'string' ? troubleWith(place, targetOf(place, source)) : undefined
      if (trouble !== undefined) {
        context.report({ node, message: trouble })
      }
    }
    return { ImportDeclaration: look, ExportNamedDeclaration: look, ExportAllDeclaration: look, ImportExpression: look }
  },
}

const FROM_THEME =
  /^(fontSize|lineHeight|fontFamily|p|px|py|pt|pb|pl|pr|m|mx|my|mt|mb|ml|mr|gap|rowGap|columnGap|padding|margin|border(Top|Bottom)?Radius)$/
const SIZE = /\d(px|rem|em|pt)\b/
const COLOUR = /#[0-9a-fA-F]{3,8}\b|\b(rgb|hsl)a?\(/

const looks = {
  create(context) {
    const place = placeOf(context.filename)
    if (place === 'app/theme.ts' || /\.test\.tsx?$/.test(place)) {
      return {}
    }
    const named = (node, name, value) => {
      if (value?.type === 'Literal' && FROM_THEME.test(name) && SIZE.test(String(value.value))) {
        context.report({ node, message: `${name} comes from the theme: a text style, or a step of the spacing.` })
      }
    }
    return {
      JSXAttribute: node => named(node, String(node.name.name), node.value),
      Property: node => named(node, String(node.key.name ?? node.key.value), node.value),
      Literal: node => {
        if (typeof node.value === 'string' && COLOUR.test(node.value)) {
          context.report({ node, message: 'Colours come from the theme, which has them for both themes.' })
        }
      },
    }
  },
}

export default { meta: { name: 'rivo' }, rules: { imports, looks } }
