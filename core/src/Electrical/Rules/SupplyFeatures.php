<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Rules;

use Magpie\Core\Electrical\Circuits;
use Magpie\Core\Inspection\Card;
use Magpie\Core\Inspection\Curable;
use Magpie\Core\Inspection\Examples;
use Magpie\Core\Inspection\Finding;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\OtherPart;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Trade;

/** E05, features: what a mains supply leaves to the builder: cover, earth, switch, fuse, fan. */
final class SupplyFeatures implements Curable
{
    /** No mains is of this voltage: those below are about 115, those above about 230, V. */
    private const BETWEEN = 170.0;

    public function card(): Card
    {
        return new Card(
            'E05-kit',
            'What a supply leaves to you',
            'Is this supply covered, earthed, switched and fused, and does it cool itself?',
            Trade::Electrical,
            'IEC 60204-1 §5.3 and §6.2 (from memory); fan and own fuse are common practice, no source',
        );
    }

    public function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->allFitted() as $ref => $fitted) {
            foreach ($fitted->part->ports as $port) {
                if ($port->draw === Draw::Converter && $port->mains) {
                    yield new Subject('need', $ref, $fitted->need->role, [$ref]);
                }
            }
        }
    }

    public function judge(Inquiry $inquiry, Survey $survey): Finding
    {
        $supply = $inquiry->build->fitted($inquiry->subject->ref) ?? $inquiry->lack('a part for it');
        $dangers = $this->open($inquiry, $supply);
        $lacks = $this->unswitched($inquiry, $survey, $supply);
        $selector = $inquiry->tryChoice($supply, 'mains_selector');
        $mains = $inquiry->build->site->mainsVoltage;
        if (in_array($selector, ['115 V', '230 V'], true) && $mains !== null) {
            $high = $mains->in('V') > self::BETWEEN;
            $wrong = "a mains selector set for the {$mains} of this site (it stands at {$selector})";
            // Set too low it burns; too high, it hardly starts.
            if ($selector === '115 V' && $high) {
                $dangers[] = $wrong;
            } elseif ($selector === '230 V' && ! $high) {
                $lacks[] = $wrong;
            }
        }
        $cooling = $inquiry->tryChoice($supply, 'cooling');
        if ($cooling === null) {
            $inquiry->miss('whether it has a fan');
        }
        $verdict = match (true) {
            $dangers !== [] => Verdict::Danger,
            $lacks !== [] => Verdict::Fails,
            $cooling === 'fanless' => Verdict::Tight,
            default => Verdict::Holds,
        };
        if ($verdict->passes() && $inquiry->isIncomplete()) {
            return $inquiry->unproven();
        }
        $says = match ($verdict) {
            Verdict::Holds => 'Covered, earthed, switched and fused, with a fan of its own.',
            Verdict::Tight => 'Covered, earthed, switched and fused; it has no fan, so give it moving air.',
            default => 'It lacks '.
                implode(' and ', [...$dangers, ...$lacks]).
                '.'.
                ($dangers !== [] ? ' Nothing is powered before that is put right.' : ''),
        };

        return $inquiry->conclude($verdict, $says, null, 'cover, earth terminal, switch and fuse present');
    }

    /**
     * @return list<string> what it lacks that keeps hands and cases off the mains
     */
    private function open(Inquiry $inquiry, Fitted $supply): array
    {
        $lacks = [];
        foreach (
            ['terminal_cover' => 'a cover over its live terminals', 'earth_terminal' => 'an earth terminal'] as $key => $what
        ) {
            match ($inquiry->tryFlag($supply, $key)) {
                true => $inquiry->remark("Has {$what}."),
                false => ($lacks[] = $what),
                null => $inquiry->miss("whether it has {$what}"),
            };
        }

        return $lacks;
    }

    /**
     * @return list<string> what neither it has nor the inlet before it
     */
    private function unswitched(Inquiry $inquiry, Survey $survey, Fitted $supply): array
    {
        $before = $this->inletBefore($survey, $supply);
        $lacks = [];
        foreach (
            ['own_switch' => ['a mains switch', 'switch'], 'own_fuse' => ['a fuse', 'fuse_rating']] as $key => [$what, $onInlet]
        ) {
            $own = $inquiry->tryFlag($supply, $key);
            if ($own === true) {
                $inquiry->remark("Has {$what}.");
            } elseif ($before !== null && $this->inletHas($inquiry, $before, $onInlet)) {
                $inquiry->remark(ucfirst("{$what} stands before it: {$before->need->role}."));
            } elseif ($own === false) {
                $lacks[] = "{$what}, its own or before it";
            } else {
                $inquiry->miss("whether it has {$what}");
            }
        }

        return $lacks;
    }

    public function cures(): array
    {
        return [new OtherPart];
    }

    public function examples(): Examples
    {
        $with = static fn (bool $cover): array => Examples::file([
            Examples::part('psu', 'power_supply', [
                'terminal_cover' => $cover,
                'earth_terminal' => true,
                'own_switch' => true,
                'own_fuse' => true,
                'cooling' => 'fan',
            ]),
        ]);

        return new Examples(static fn (): array => $with(false), static fn (): array => $with(true));
    }

    private function inletBefore(Survey $survey, Fitted $supply): ?Fitted
    {
        $topology = Circuits::of($survey)->topology;
        foreach ($supply->part->ports as $port) {
            $node = $topology->node("{$supply->need->ref}.{$port->name}");
            if ($node !== null && $port->mains) {
                $source = $topology->sourceOf($node);

                return $source === null ? null : $topology->at($source)[0];
            }
        }

        return null;
    }

    private function inletHas(Inquiry $inquiry, Fitted $inlet, string $key): bool
    {
        return $inquiry->tryFlag($inlet, $key) === true ||
            ($inquiry->tryRead($inlet, $key, 'I_n')?->isPositive() ?? false);
    }
}
