<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical\Rules;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;
use Magpie\Core\Machine\Zone;
use Magpie\Core\Machine\ZoneKind;
use Magpie\Core\Quantity\Quantity;

/** M13-print: whether a material can be printed on this machine: its nozzle, and the air around the print. */
final class PrintConditions implements Curable
{
    /** Air where nobody says how warm it is, °C. */
    private const WARM_ROOM = 30.0;

    /** A nozzle this near its limit holds, but leaves nothing for a purge. */
    private const NEAR = 10;

    public function card(): Card
    {
        return new Card(
            'M13-print',
            'Printing this material',
            'Does the hot end reach what this material is printed at, and is the air around the print as it wants it?',
            Trade::Mechanical,
            "Maker's temperatures; a lined heat break stays below its lining's limit; layers to 80 % of the nozzle and lines of 1 to 1.5 times it; styrenes warp in a draught: common practice, no source",
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::Feedstock) as $ref => $fitted) {
            foreach (['nozzle_temperature', 'chamber_temperature', 'door', 'line_width', 'layer_height'] as $key) {
                if ($fitted->part->spec($key) !== null) {
                    yield new Subject('need', (string) $ref, $fitted->need->role, [(string) $ref]);
                    break;
                }
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $reel = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $fails = $tight = $says = [];
        $printed =
            $inquiry->tryRead($reel, 'nozzle_temperature', 'T_p', Bound::Highest) ??
            $inquiry->miss(
                "the temperature {$reel->need->role} is printed at",
                "parts/{$reel->part->ref}/specs/nozzle_temperature",
            );
        foreach ($inquiry->build->fittedThat(Ability::Melts) as $hot) {
            [$limit, $what] = $this->limitOf($inquiry, $hot);
            if ($printed === null || $limit === null) {
                continue;
            }
            $left = $limit->minus($printed);
            $inquiry->work(
                "What {$hot->need->role} has left",
                'ΔT = T_l − T_p',
                ['T_l' => $limit, 'T_p' => $printed],
                $left,
                'K',
            );
            $line = "printed at {$printed}, and {$what} of {$hot->need->role} stands {$limit}";
            match (true) {
                $printed->exceeds($limit) => ($fails[] = $line),
                $left->in('K') < self::NEAR => ($tight[] = $line),
                default => ($says[] = $line),
            };
        }
        $this->line($inquiry, $reel, $fails, $tight);
        $this->air($inquiry, $reel, $fails, $tight, $says);
        $verdict = match (true) {
            $fails !== [] => Verdict::Fails,
            $tight !== [] => Verdict::Tight,
            default => Verdict::Holds,
        };
        $all = [...$fails, ...$tight, ...$says];
        if ($all === []) {
            return $inquiry->isIncomplete()
                ? $inquiry->unproven()
                : $inquiry->conclude(Verdict::Holds, 'It asks for nothing of the machine.');
        }

        return $inquiry->conclude(
            $verdict,
            ucfirst(implode('; ', $fails !== [] ? $fails : ($tight !== [] ? $tight : $says))).'.',
        );
    }

    /**
     * A line is as wide as the nozzle or wider, and no layer is as high as the nozzle is wide.
     *
     * @param  list<string>  $fails
     * @param  list<string>  $tight
     */
    private function line(Inquiry $inquiry, Fitted $reel, array &$fails, array &$tight): void
    {
        $width = $inquiry->tryRead($reel, 'line_width', 'w');
        $height = $inquiry->tryRead($reel, 'layer_height', 'h', Bound::Highest);
        foreach ($width === null && $height === null ? [] : $inquiry->build->fittedThat(Ability::Melts) as $hot) {
            $nozzle =
                $inquiry->tryRead($hot, 'nozzle', 'd') ??
                $inquiry->miss("nozzle bore of {$hot->need->role}", "parts/{$hot->part->ref}/specs/nozzle");
            if ($nozzle === null) {
                continue;
            }
            if ($height?->exceeds($nozzle->times(0.8)) === true) {
                $fails[] = "layers of {$height} from a nozzle of {$nozzle} do not hold on each other: 80 % of it at most";
            }
            if ($width !== null && ($width->isBelow($nozzle) || $width->exceeds($nozzle->times(1.5)))) {
                $tight[] = "a line of {$width} from a nozzle of {$nozzle}: once to one and a half times is usual";
            }
        }
    }

    /**
     * @return array{Quantity|null, string} what a hot end stands, and what of it
     */
    private function limitOf(Inquiry $inquiry, Fitted $hot): array
    {
        $lined = $inquiry->tryFlag($hot, 'lined');
        $key = $lined === false ? 'top_temperature' : 'lining_limit';
        $limit = $inquiry->tryRead($hot, $key, 'T_l', Bound::Lowest);
        if ($limit === null) {
            $inquiry->miss(
                lcfirst($hot->part->family->field($key)->label ?? $key)." of {$hot->need->role}",
                "parts/{$hot->part->ref}/specs/{$key}",
            );
        }

        return [$limit, $lined === false ? 'the hot end' : 'the lining'];
    }

    /**
     * @param  list<string>  $fails
     * @param  list<string>  $tight
     * @param  list<string>  $says
     */
    private function air(Inquiry $inquiry, Fitted $reel, array &$fails, array &$tight, array &$says): void
    {
        $door = $inquiry->tryChoice($reel, 'door');
        $wanted = $inquiry->tryRead($reel, 'chamber_temperature', 'T_c', Bound::Lowest);
        $chamber = self::chamber($inquiry);
        if ($chamber === null) {
            if ($door === 'shut') {
                $fails[] = 'it wants a shut chamber, and there is none: it warps and splits';
            } elseif ($wanted?->exceeds($inquiry->build->site->ambient ?? Quantity::of(self::WARM_ROOM, '°C')) === true) {
                $tight[] = "it likes air of {$wanted} around it, and nothing holds the warmth";
            }

            return;
        }
        if ($door === null && $wanted === null) {
            return;
        }
        if ($door === 'open') {
            $says[] = "print it with {$chamber->name} open";
        }
        if ($wanted === null) {
            return;
        }
        if ($chamber->temperature === null) {
            $inquiry->miss("temperature in {$chamber->name}", "zones/{$chamber->ref}/temperature");

            return;
        }
        $air = $inquiry->given(
            "temperature in {$chamber->name}",
            'T_z',
            $chamber->temperature,
            $chamber->evidence,
            "zones/{$chamber->ref}/temperature",
        );
        $line = "it likes air of {$wanted}, and {$chamber->name} reaches {$air}";
        $air->isBelow($wanted) ? ($tight[] = $line) : ($says[] = $line);
    }

    /** The place the print stands in: a chamber before an enclosure. */
    private static function chamber(Inquiry $inquiry): ?Zone
    {
        foreach ([ZoneKind::Chamber, ZoneKind::Enclosure] as $kind) {
            foreach ($inquiry->build->zones as $zone) {
                if ($zone->kind === $kind) {
                    return $zone;
                }
            }
        }

        return null;
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $file = static fn (string $printed): array => Examples::file([
            Examples::part('hot-end', 'hot_end', [
                'top_temperature' => '300 °C',
                'lined' => true,
                'lining_limit' => '240 °C',
            ]),
            Examples::part('reel', 'filament', ['material' => 'PETG', 'nozzle_temperature' => $printed]),
        ]);

        return new Examples(
            static fn (): array => $file('260 °C'),
            static fn (): array => $file('225 °C'),
            Verdict::Fails,
        );
    }
}
