<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;

/** M10-rust: plain steel in a damp room. */
final class Rust implements Check
{
    public function card(): Card
    {
        return new Card(
            'M10-rust',
            'Damp room',
            'Do screws and rails stay bright where the machine stands?',
            Trade::Site,
            'Plain steel rusts from about 60 % relative humidity: common practice, no source',
            ['damp' => Threshold::share('relative humidity above which plain steel rusts', 0.6)],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        if ($survey->build->site->humidity !== null && [...$survey->build->fittedThat(Ability::Rusts)] !== []) {
            yield new Subject(
                'site',
                'humidity',
                'Damp room',
                array_map(strval(...), array_keys([...$survey->build->fittedThat(Ability::Rusts)])),
            );
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $damp = $inquiry->given(
            'relative humidity',
            'φ',
            $inquiry->build->site->humidity,
            Evidence::Measured,
            'site/humidity',
        );
        $limit = $inquiry->threshold('damp');
        $inquiry->work(
            'Above what plain steel bears',
            'Δφ = φ − φ₀',
            ['φ' => $damp, 'φ₀' => $limit],
            $damp->minus($limit),
            '%',
        );
        if (! $damp->exceeds($limit)) {
            return $inquiry->conclude(
                Verdict::Holds,
                "{$damp}: plain steel stays bright with a wipe of oil.",
                null,
                "{$limit}",
            );
        }
        $plain = [];
        foreach ($inquiry->build->fittedThat(Ability::Screws) as $fitted) {
            $finish = $inquiry->tryChoice($fitted, 'coating');
            if (
                $inquiry->tryChoice($fitted, 'grade') !== 'A2-70' &&
                ($finish === null || preg_match('/zinc|stainless|nickel|plat/i', $finish) !== 1)
            ) {
                $plain[] = $fitted->need->role;
            }
        }
        $rails = array_map(
            static fn ($f): string => $f->need->role,
            array_values([...$inquiry->build->fittedThat(Ability::Guides)]),
        );
        $all = [...$plain, ...$rails];
        if ($all === []) {
            return $inquiry->conclude(Verdict::Holds, "{$damp}, and no plain steel in it.", null, "{$limit}");
        }

        return $inquiry->conclude(
            Verdict::Tight,
            "{$damp}: plain steel rusts. ".
                implode(', ', array_slice($all, 0, 4)).
                (count($all) > 4 ? ' and '.(count($all) - 4).' more' : '').
                '. Plated or stainless screws; oil the rails each week, or dry the air.',
            null,
            "{$limit}",
        );
    }

    public function examples(): Examples
    {
        $file = static fn (string $damp): array => Examples::file(
            [Examples::part('s', 'screw', ['thread' => 'M5', 'grade' => '8.8'])],
            ['site' => ['humidity' => $damp]],
        );

        return new Examples(static fn (): array => $file('72 %'), static fn (): array => $file('45 %'), Verdict::Tight);
    }
}
