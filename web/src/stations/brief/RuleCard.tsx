import { Box, Button, Typography } from '@mui/material'
import * as declared from '../../api/declared'
import type { Brief, CardRule } from '../../api/model'
import { Choice, LengthField, QuantityField, ShareField, VolumeField } from '../../fields/fields'
import { NameField } from '../../fields/WordsField'
import { freshId } from '../../work/naming'
import { changeRule, removeRule, setBrief } from './edits'

/** Limits typed from a rulebook or the customer: checked like the house's own. */
export function RuleCard({ brief, readOnly }: { brief: Brief; readOnly: boolean }) {
  return (
    <>
      {brief.card.map((rule, place) => (
        <Box key={rule.id} sx={{ display: 'grid', gap: 1.25, pb: 1 }} data-row={rule.id}>
          <NameField
            label="Rule"
            value={rule.rule}
            disabled={readOnly}
            onCommit={(name) => changeRule(rule.id, { rule: name })}
          />
          <Choice
            label="Quantity limited"
            value={rule.subject}
            options={declared.CardRule.choices.subject}
            disabled={readOnly}
            onChange={(subject) => changeRule(rule.id, { subject })}
          />
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1 }}>
            <LimitField rule={rule} path={`brief.card.${place}.limit`} readOnly={readOnly} />
            <Button disabled={readOnly} onClick={() => removeRule(rule.id)}>
              Remove
            </Button>
          </Box>
        </Box>
      ))}
      {brief.card.length === 0 && (
        <Typography variant="body2" color="textSecondary">
          A rulebook’s or the customer’s limits, by their names: each is checked and named in its finding.
        </Typography>
      )}
      <Button
        variant="outlined"
        disabled={readOnly || brief.card.length >= declared.Brief.most.card}
        onClick={() =>
          setBrief({
            card: [
              ...brief.card,
              {
                id: freshId('rule', brief.card),
                rule: `Rule ${brief.card.length + 1}`,
                subject: 'rated capacity at most',
                limit: 100,
              },
            ],
          })
        }
      >
        Add a rule
      </Button>
    </>
  )
}

function LimitField({ rule, path, readOnly }: { rule: CardRule; path: string; readOnly: boolean }) {
  const common = {
    label: 'Limit',
    value: rule.limit,
    path,
    disabled: readOnly,
    onCommit: (limit: number | null) => limit !== null && changeRule(rule.id, { limit }),
  }
  if (rule.subject.includes('capacity')) return <VolumeField {...common} />
  if (rule.subject.includes('share')) return <ShareField {...common} />
  if (rule.subject.includes('thickness')) return <LengthField {...common} />
  return <QuantityField {...common} of="kg" />
}
