<?php

declare(strict_types=1);

namespace Tests\Feature;

use Sabre\VObject\Component\VCalendar;
use Sabre\VObject\Reader;

/** Dates over the wire, and as a calendar another program can read. */
final class DatesTest extends FeatureTestCase
{
    public function test_dates_are_worked_out_and_the_calendar_is_valid(): void
    {
        $this->as($this->isla());
        $id = $this->linnet()->id;
        $dates = $this->getJson("/api/builds/{$id}/dates")->assertOk();
        self::assertNotSame([], $dates->json('critical'));
        self::assertGreaterThanOrEqual($dates->json('p50'), $dates->json('p90'));
        self::assertSame(
            $dates->json(),
            $this->getJson("/api/builds/{$id}/dates")->json(),
            'The same seed, the same days.',
        );
        $this->getJson("/api/builds/{$id}/dates?seed=x")->assertStatus(422);

        $file = $this->get("/api/builds/{$id}/dates.ics")->assertOk();
        self::assertStringStartsWith('text/calendar', (string) $file->headers->get('Content-Type'));
        $calendar = Reader::read((string) $file->getContent());
        self::assertInstanceOf(VCalendar::class, $calendar);
        self::assertSame([], $calendar->validate());
        $events = array_map(
            static fn ($event): string => (string) $event->SUMMARY,
            iterator_to_array($calendar->select('VEVENT')),
        );
        $order = array_filter($dates->json('activities'), static fn (array $a): bool => $a['kind'] === 'order');
        self::assertCount(
            count($order),
            array_filter($events, static fn (string $e): bool => str_starts_with($e, 'Order by: ')),
        );
        self::assertContains('Linnet is done, in nine cases of ten', $events);
    }
}
