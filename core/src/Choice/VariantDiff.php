<?php

declare(strict_types=1);

namespace Magpie\Core\Choice;

use DateTimeImmutable;
use Magpie\Core\Electrical\Views\PowerLedger;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Machine\Build;
use Magpie\Core\Money\MoneyLedger;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Work\Forecast;

/** Two variants of one machine line by line: parts, verdicts, watts, mass, money and hours. */
final readonly class VariantDiff
{
    public function __construct(private Inspection $one, private Inspection $other, private DateTimeImmutable $now)
    {
    }

    /**
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return [
            'sides' => [$this->side($this->one), $this->side($this->other)],
            'parts' => $this->parts(),
            'findings' => $this->findings(),
        ];
    }

    /**
     * @return array<string, mixed>
     */
    private function side(Inspection $inspection): array
    {
        $build = $inspection->survey->build;
        $money = MoneyLedger::of($inspection->survey)->toArray(false);
        [$mass, $unweighed] = self::mass($build);
        $watts = [];
        foreach ((new PowerLedger($inspection->survey))->toArray() as $scenario) {
            $watts[] = [
                'scenario' => $scenario['name'],
                'watts' => $scenario['energy']['known_watts'],
                'complete' => $scenario['energy']['watts'] !== null,
            ];
        }

        return [
            'name' => $build->plan->name,
            'tally' => $inspection->tally(),
            'currency' => $money['currency'],
            'planned' => $money['planned'],
            'unpriced' => count($money['open']),
            'mass' => (string) $mass->to('kg'),
            'kilograms' => round($mass->in('kg'), 3),
            'unweighed' => $unweighed,
            'watts' => $watts,
            'hours' => Forecast::of($build->steps, $build->plan, $this->now)->toArray()['hours_left'],
        ];
    }

    /**
     * Mass of what is fitted and how many fitted things say none.
     *
     * @return array{Quantity, int}
     */
    public static function mass(Build $build): array
    {
        $sum = Quantity::of(0, 'kg');
        $unknown = 0;
        foreach ($build->allFitted() as $fitted) {
            if ($fitted->part->family->account()->value !== 'machine') {
                continue;
            }
            $mass = $fitted->part->spec('mass')?->nominal();
            $sum = $mass === null ? $sum : $sum->plus($mass->times($fitted->need->quantity));
            $unknown += $mass === null ? 1 : 0;
        }

        return [$sum, $unknown];
    }

    /**
     * @return list<array{need: string, role: string, one: string|null, other: string|null, same: bool}>
     */
    private function parts(): array
    {
        [$a, $b] = [$this->one->survey->build, $this->other->survey->build];
        $rows = [];
        foreach ($a->needs + $b->needs as $ref => $need) {
            [$one, $other] = [self::chosen($a, $ref), self::chosen($b, $ref)];
            $rows[] = [
                'need' => $ref,
                'role' => $need->role,
                'one' => $one,
                'other' => $other,
                'same' => $one === $other,
            ];
        }

        return $rows;
    }

    private static function chosen(Build $build, string $ref): ?string
    {
        $need = $build->needs[$ref] ?? null;

        return $need === null
            ? null
            : "{$need->quantity} × ".($build->part($need->choice ?? '')->name ?? 'nothing chosen');
    }

    /**
     * Findings whose verdict is not the same, worst first.
     *
     * @return list<array<string, string|null>> key, title, subject and the verdict of each side
     */
    private function findings(): array
    {
        $by = static function (Inspection $inspection): array {
            $found = [];
            foreach ($inspection->findings as $finding) {
                $found[$finding->key()] = $finding;
            }

            return $found;
        };
        [$one, $other] = [$by($this->one), $by($this->other)];
        $rows = [];
        foreach ($one + $other as $key => $finding) {
            [$was, $is] = [$one[$key] ?? null, $other[$key] ?? null];
            if ($was?->verdict !== $is?->verdict) {
                $rows[] = [
                    'rank' => min($was?->verdict->rank() ?? 9, $is?->verdict->rank() ?? 9),
                    'key' => $key,
                    'title' => $finding->card->title,
                    'subject' => $finding->subject->label,
                    'one' => $was?->verdict->value,
                    'other' => $is?->verdict->value,
                ];
            }
        }
        usort($rows, static fn (array $a, array $b): int => [$a['rank'], $a['key']] <=> [$b['rank'], $b['key']]);

        return array_map(
            static fn (array $r): array => [
                'key' => $r['key'],
                'title' => $r['title'],
                'subject' => $r['subject'],
                'one' => $r['one'],
                'other' => $r['other'],
            ],
            $rows,
        );
    }
}
