<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Mechanical\MatedParts;
use Magpie\Core\Quantity\Quantity;

/** M09-cutout: an opening is cut once, so what goes into it is measured first. */
final class CutOut implements Check
{
    /** Material left on either side of an opening. Common practice, no source. */
    private const WEB = 10.0;

    public function card(): Card
    {
        return new Card(
            'M09-cutout',
            'Cut-out',
            'Has the part that goes into this opening been measured, and does the opening leave enough of the panel?',
            Trade::Mechanical,
            'Measure the part in hand before cutting; 10 mm left on either side of an opening, and 1.5 mm of play in it: common practice, no source',
            ['play' => new Threshold('most an opening may be larger than its part needs', Quantity::of(1.5, 'mm'))],
            topics: [Topic::Joints],
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach (MatedParts::all($survey->build, self::takes(...)) as $met) {
            yield new Subject(
                'mate',
                $met->mate->ref,
                "{$met->mate->kind}: {$met->second->need->role} in {$met->first->need->role}",
                $met->mate->between,
            );
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $met =
            MatedParts::of($inquiry->build, $inquiry->build->mates[$inquiry->subject->ref], self::takes(...)) ??
            $inquiry->lack('a panel and the part that goes into it');
        [$panel, $part] = [$met->first, $met->second];
        $opening = $inquiry->read($part, 'cut_out', 'c', Bound::Highest);
        if ($inquiry->evidenceOf($part, 'cut_out') !== Evidence::Measured) {
            $inquiry->missUntil(
                Stage::Bought,
                "the cut-out of {$part->need->role}, measured on the part in hand: hold the cut until then",
                "parts/{$part->part->ref}/specs/cut_out",
            );
        }
        [$length, $width] = $inquiry->readAll($panel, ['l' => 'length', 'w' => 'width'], Bound::Lowest);
        $side = $length->exceeds($width) ? $width : $length;
        $web = $inquiry->work(
            'Left on either side',
            's = (w − c) / 2',
            ['w' => $side, 'c' => $opening],
            $side->minus($opening)->times(0.5),
            'mm',
        );
        $cut = $part->need->opening;
        if ($cut !== null) {
            $made = $inquiry->given(
                "opening cut for {$part->need->role}",
                'o',
                $cut,
                Evidence::Measured,
                "needs/{$part->need->ref}/opening",
            );
            $over = $inquiry->work(
                'Play of the opening as cut',
                'p = o − c',
                ['o' => $made, 'c' => $opening],
                $made->minus($opening),
                'mm',
            );
            if (! $over->isPositive() && ! $over->isZero()) {
                return $inquiry->conclude(
                    Verdict::Fails,
                    "The opening was cut to {$made}; {$part->need->role} needs {$opening}: it does not go in. File it out.",
                    $inquiry->margin($opening, $made),
                    "{$opening}",
                );
            }
            if ($over->exceeds($inquiry->threshold('play'))) {
                return $inquiry->conclude(
                    Verdict::Fails,
                    "The opening was cut to {$made}, {$over} more than {$part->need->role} needs: it falls through, or stands loose.",
                    null,
                    "{$opening} to ".$opening->plus($inquiry->threshold('play')),
                );
            }
        }
        $verdict = match (true) {
            ! $web->isPositive() => Verdict::Fails,
            Quantity::of(self::WEB, 'mm')->exceeds($web) => Verdict::Tight,
            default => Verdict::Holds,
        };

        return $inquiry->conclude(
            $verdict,
            "An opening of {$opening} in a panel {$side} across: ".
                ($verdict === Verdict::Fails ? 'it does not go in.' : "{$web} left on either side."),
            $inquiry->margin($opening, $side),
            "{$side}",
        );
    }

    public function examples(): Examples
    {
        $file = static function (string $opening): array {
            [$part, $need] = Examples::part('inlet', 'mains_inlet', []);
            $part['specs'] = ['cut_out' => ['value' => $opening, 'evidence' => 'measured']];

            return Examples::file(
                [[$part, $need], Examples::part('panel', 'panel', ['length' => '200 mm', 'width' => '60 mm'])],
                ['mates' => [['ref' => 'm', 'kind' => 'cut-out', 'between' => ['inlet', 'panel']]]],
            );
        };

        return new Examples(static fn (): array => $file('62 mm'), static fn (): array => $file('32 mm'), Verdict::Fails);
    }

    private static function takes(Fitted $panel, Fitted $part): bool
    {
        return $panel->part->can(Ability::Covers) && $part->part->family->field('cut_out') !== null;
    }
}
