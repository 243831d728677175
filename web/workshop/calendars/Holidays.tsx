import { Button, Checkbox, Group, Modal, ScrollArea, Select, Text } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { LOCALES } from '../../../core/forms';
import { Waiting } from '../../ui/Waiting';
import { useHolidayPlaces } from '../queries';
import { dateFormat } from '../../ui/dateFormat';

const YEARS = 3;
type Props = { year: number; onClose(): void; onAdd(days: { date: string; name: string }[]): void };

/** Public holidays of a country or region, to choose from. */
export function Holidays({ year, onClose, onAdd }: Props) {
  const { t, language } = useWords();
  const { data: places } = useHolidayPlaces(true);
  const [country, setCountry] = useState<string | null>(null);
  const [region, setRegion] = useState<string | null>(null);
  const [left, setLeft] = useState<Set<string>>(new Set());
  const { data: days, isFetching } = useQuery({
    queryKey: ['holidays', country, region, year],
    enabled: country !== null,
    queryFn: () =>
      call(api.calendars.holidays, {
        query: { country: country!, year, years: YEARS, region: region ?? undefined },
      }),
  });
  const format = dateFormat(LOCALES[language], {
    ...{ weekday: 'short', day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' },
  });
  const regions = places?.find(({ id }) => id === country)?.regions ?? [];
  const toData = (list: { id: string; name: string }[]) =>
    list.map(({ id, name }) => ({ value: id, label: name }));
  const ticked = (days ?? []).filter(({ date }) => !left.has(date));
  return (
    <Modal opened onClose={onClose} title={t('workshop/calendar/holidays').replace(' …', '')} size="md">
      {!places && <Waiting />}
      {places && (
        <Group grow mb="sm">
          <Select
            searchable
            label={t('workshop/calendar/country')}
            data={toData(places)}
            value={country}
            onChange={(value) => {
              setCountry(value);
              setRegion(null);
            }}
          />
          <Select
            searchable
            clearable
            label={t('workshop/calendar/region')}
            placeholder={t('workshop/calendar/noRegion')}
            disabled={regions.length === 0}
            data={toData(regions)}
            value={region}
            onChange={setRegion}
          />
        </Group>
      )}
      {isFetching && <Waiting />}
      {days && (
        <>
          <Text size="sm" mb="xs">
            {t('workshop/calendar/holidayLead', { from: year, to: year + YEARS - 1 })}
          </Text>
          <ScrollArea h={300}>
            {days.map(({ date, name }) => (
              <Checkbox
                key={date}
                mb={6}
                size="xs"
                label={`${format.format(Date.parse(date))} · ${name}`}
                checked={!left.has(date)}
                onChange={({ target }) => {
                  const next = new Set(left);
                  if (target.checked) next.delete(date);
                  else next.add(date);
                  setLeft(next);
                }}
              />
            ))}
          </ScrollArea>
          <Button mt="sm" disabled={ticked.length === 0} onClick={() => onAdd(ticked)}>
            {t('workshop/calendar/addHolidays', { count: ticked.length })}
          </Button>
        </>
      )}
    </Modal>
  );
}
