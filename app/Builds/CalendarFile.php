<?php

declare(strict_types=1);

namespace App\Builds;

use DateTimeImmutable;
use Magpie\Core\Planning\BuildDates;
use Sabre\VObject\Component\VCalendar;

/** The dates of a build as a calendar (RFC 5545): days to order by, arrivals and steps, each all day. */
final readonly class CalendarFile
{
    public function __construct(private string $slug, private BuildDates $dates)
    {
    }

    public function text(): string
    {
        $data = $this->dates->toArray();
        $calendar = new VCalendar(['PRODID' => '-//Frugal Magpie//Dates//EN']);
        foreach ($data['activities'] as $activity) {
            if ($activity['kind'] === 'order') {
                $this->add($calendar, "order-by/{$activity['key']}", "Order by: {$activity['label']}", $activity['latest']);
            }
            if ($activity['kind'] !== 'work') {
                $this->add($calendar, "arrives/{$activity['key']}", "Arrives: {$activity['label']}", $activity['to']);
            } else {
                $this->add($calendar, $activity['key'], $activity['label'], $activity['from'], $activity['to']);
            }
        }
        $this->add($calendar, 'done', "{$data['build']} is done, in nine cases of ten", $data['p90']);

        return $calendar->serialize();
    }

    /** All day; the last day is within. */
    private function add(VCalendar $calendar, string $key, string $what, string $from, ?string $to = null): void
    {
        $event = $calendar->createComponent('VEVENT', [
            'UID' => "{$this->slug}/{$key}@frugal-magpie",
            'SUMMARY' => $what,
            'DTSTAMP' => new DateTimeImmutable("{$this->dates->today} 00:00:00 UTC"),
        ]);
        $event->add('DTSTART', str_replace('-', '', $from), ['VALUE' => 'DATE']);
        $event->add(
            'DTEND',
            (new DateTimeImmutable($to ?? $from))->modify('+1 day')->format('Ymd'),
            ['VALUE' => 'DATE'],
        );
        $calendar->add($event);
    }
}
