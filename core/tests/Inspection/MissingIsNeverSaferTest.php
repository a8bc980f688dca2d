<?php

declare(strict_types=1);

namespace Magpie\Core\Tests\Inspection;

use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Build;
use Magpie\Core\Tests\Trials;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Whatever is taken away from a build, nothing may look safer for it. */
final class MissingIsNeverSaferTest extends TestCase
{
    /**
     * Values whose absence may lift a verdict, since another check then asks for them or a default takes their place.
     */
    private const MAY_LIFT = [
        'E04' => ['min_voltage'], // E06 asks for it
        'E05' => ['rated_power', 'cooling', 'derate_from', 'derating'], // the rated current governs; derating by default
        'E06' => ['voltage_tolerance'], // the nominal is taken
        'E13' => ['fuse_rating', 'peak_current'], // the next fuse up, or 1.5 × the rating
        'M13' => ['glass_transition'], // the usual one of its material
        'E02' => ['contacts_per_pole'], // one is taken
    ];

    /**
     * @return iterable<string, array{string}>
     */
    public static function demos(): iterable
    {
        foreach (['linnet', 'dunlin'] as $name) {
            yield $name => [dirname(__DIR__, 3)."/demo/{$name}.json"];
        }
    }

    #[DataProvider('demos')]
    public function test_a_spec_taken_away_lifts_no_verdict(string $file): void
    {
        $data = json_decode((string) file_get_contents($file), true);
        $trials = new Trials($data);
        $before = self::verdicts($trials->findings());
        $lifted = [];
        $read = self::read(BuildFile::build($data));
        // Every so manieth; MAGPIE_FUZZ tries all of them.
        $every = getenv('MAGPIE_FUZZ') === false ? 4 : 1;
        $count = 0;
        foreach ($data['parts'] as $p => $part) {
            foreach (
                array_filter(
                    array_keys($part['specs'] ?? []),
                    static fn (string $key): bool => isset($read["parts/{$part['ref']}/specs/{$key}"]),
                ) as $key
            ) {
                if ($count++ % $every !== 0) {
                    continue;
                }
                $less = $data;
                unset($less['parts'][$p]['specs'][$key]);
                foreach (self::verdicts($trials->findings($less)) as $finding => $verdict) {
                    $check = explode('/', $finding)[0];
                    $was = $before[$finding] ?? Verdict::Unproven;
                    if (
                        $verdict->passes() &&
                        ! $was->passes() &&
                        ! in_array($key, self::MAY_LIFT[explode('-', $check)[0]] ?? [], true)
                    ) {
                        $lifted[] = "{$finding}: {$was->value} → {$verdict->value} without {$key} of {$part['ref']}";
                    }
                }
            }
        }

        self::assertSame([], $lifted);
    }

    #[DataProvider('demos')]
    public function test_a_lead_that_says_less_lifts_no_verdict(string $file): void
    {
        $data = json_decode((string) file_get_contents($file), true);
        $trials = new Trials($data);
        $before = self::verdicts($trials->findings());
        $lifted = [];
        foreach ($data['leads'] as $l => $lead) {
            foreach (['conductor', 'length', 'route', 'protection'] as $member) {
                $less = $data;
                unset($less['leads'][$l][$member]);
                foreach (self::verdicts($trials->findings($less)) as $finding => $verdict) {
                    $was = $before[$finding] ?? Verdict::Unproven;
                    if ($verdict->passes() && ! $was->passes()) {
                        $lifted[] = "{$finding}: {$was->value} → {$verdict->value} without {$member} of {$lead['ref']}";
                    }
                }
            }
        }

        self::assertSame([], $lifted);
    }

    #[DataProvider('demos')]
    public function test_an_axis_or_a_place_that_says_less_lifts_no_verdict(string $file): void
    {
        $data = json_decode((string) file_get_contents($file), true);
        $trials = new Trials($data);
        $before = self::verdicts($trials->findings());
        $lifted = [];
        foreach (
            ['axes' => ['drive', 'homing'], 'zones' => ['temperature', 'evidence', 'box'], 'clearances' => ['evidence']] as $section => $members
        ) {
            foreach ($data[$section] ?? [] as $i => $entry) {
                foreach ($members as $member) {
                    foreach (is_array($entry[$member] ?? null) ? array_keys($entry[$member]) : [null] as $within) {
                        $less = $data;
                        if ($within === null) {
                            unset($less[$section][$i][$member]);
                        } elseif (! in_array($within, ['inertia', 'ratio', 'both_ends', 'configured', 'by'], true)) {
                            // Without its further inertia, or geared one to one, it is another machine; the rest is
                            // just unsaid.
                            unset($less[$section][$i][$member][$within]);
                        }
                        foreach (self::verdicts($trials->findings($less)) as $finding => $verdict) {
                            $was = $before[$finding] ?? Verdict::Unproven;
                            if ($verdict->passes() && ! $was->passes()) {
                                $lifted[] = "{$finding}: {$was->value} → {$verdict->value} without {$member} {$within} of {$entry['ref']}";
                            }
                        }
                    }
                }
            }
        }

        self::assertSame([], $lifted);
    }

    #[DataProvider('demos')]
    public function test_an_empty_site_lifts_no_verdict(string $file): void
    {
        $data = json_decode((string) file_get_contents($file), true);
        $trials = new Trials($data);
        $before = self::verdicts($trials->findings());
        $data['site'] = [];
        foreach (self::verdicts($trials->findings($data)) as $finding => $verdict) {
            if (! ($before[$finding] ?? Verdict::Unproven)->passes()) {
                self::assertFalse($verdict->passes(), $finding);
            }
        }
    }

    #[DataProvider('demos')]
    public function test_without_leads_nothing_electrical_passes(string $file): void
    {
        $data = json_decode((string) file_get_contents($file), true);
        $data['leads'] = [];
        foreach (Rules::inspector()->inspect(BuildFile::build($data))->findings as $finding) {
            if (str_starts_with($finding->card->id, 'E0') && $finding->card->id !== 'E05-kit') {
                self::assertFalse($finding->verdict->passes(), "{$finding->key()}: {$finding->headline}");
            }
        }
    }

    /**
     * @return array<string, true> places of the values that some check reads
     */
    private static function read(Build $build): array
    {
        $read = [];
        foreach (Rules::inspector()->inspect($build)->findings as $finding) {
            foreach ($finding->inputs as $input) {
                $read[$input->where] = true;
            }
        }

        return $read;
    }

    /**
     * @param  array<string, Finding>  $findings
     * @return array<string, Verdict>
     */
    private static function verdicts(array $findings): array
    {
        return array_map(static fn (Finding $f): Verdict => $f->verdict, $findings);
    }
}
