import { Link } from 'react-router'
import { Notice } from '../shared/ui/Notice'

export function Missing() {
  return (
    <Notice alone heading="There is no such page">
      The address leads nowhere. Go to <Link to="/reach">Reach</Link> or the <Link to="/fleet">Fleet</Link>, or press
      Ctrl K and look for it.
    </Notice>
  )
}
