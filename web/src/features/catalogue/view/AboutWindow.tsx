import { Grid } from '@chakra-ui/react'
import { useState } from 'react'
import type { TitleRecord } from '../api/catalogue'
import type { Editing } from '../model/useEdit'
import { reworded } from '../model/record'
import { IconField } from './IconField'
import { EditWindow } from './EditWindow'
import { TextField } from '../../../shared/TextField'

const FIELDS = [
  ['owner', 'Owner'],
  ['category', 'Category'],
  ['information', 'Information page'],
  ['privacy', 'Privacy page'],
  ['approvedBy', 'Approved by change'],
] as const

/** What is said of a title. */
export function AboutWindow({
  record,
  editing,
  onClose,
}: {
  record: TitleRecord
  editing: Editing
  onClose: () => void
}) {
  const [before] = useState(record)
  const [name, setName] = useState(record.name)
  const [maker, setMaker] = useState(record.maker)
  const [about, setAbout] = useState(record.about)
  const [seats, setSeats] = useState(record.seats === undefined ? '' : String(record.seats))
  const problem =
    name.trim() === ''
      ? 'Give it a name.'
      : /^\d{0,7}$/.test(seats.trim())
        ? undefined
        : 'Seats are a whole number, or empty where they are not counted.'
  return (
    <EditWindow
      heading={`About ${record.name}`}
      width="680px"
      editing={editing}
      problem={problem}
      onClose={onClose}
      edit={newest => reworded(newest, before, { name, maker, about }, seats)}
    >
      <Grid templateColumns="1fr 1fr" gap="10px 16px">
        <TextField label="Name" value={name} required onChange={setName} />
        <TextField label="Maker" value={maker} onChange={setMaker} />
        {FIELDS.map(([field, label]) => (
          <TextField
            key={field}
            label={label}
            value={about[field]}
            onChange={value => setAbout({ ...about, [field]: value })}
          />
        ))}
        <TextField label="Licence seats" value={seats} hint="Empty: not counted" onChange={setSeats} />
      </Grid>
      <Grid gap="10px" mt="10px">
        <TextField
          label="Description"
          rows={2}
          value={about.description}
          hint="For the people who will read it on the shelf"
          onChange={description => setAbout({ ...about, description })}
        />
        <IconField name={name} icon={about.icon} onChange={icon => setAbout({ ...about, icon })} />
        <TextField
          label="Licence text"
          rows={2}
          value={about.licence}
          hint="If there is one, somebody has to accept it before the title is assigned"
          onChange={licence => setAbout({ ...about, licence })}
        />
        <TextField label="Notes" rows={2} value={about.notes} onChange={notes => setAbout({ ...about, notes })} />
      </Grid>
    </EditWindow>
  )
}
