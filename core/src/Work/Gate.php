<?php

declare(strict_types=1);

namespace Magpie\Core\Work;

use Magpie\Core\Inspection\Verdict;
use Magpie\Core\Machine\Account;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Buying\PurchaseState;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\LeadEnd;
use Magpie\Core\Machine\Work\Document;
use Magpie\Core\Machine\Work\Fault;
use Magpie\Core\Machine\Work\Papers;
use Magpie\Core\Machine\Work\Sequence;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;
use Magpie\Core\Machine\Work\Timing;

/**
 * What keeps a step from being done: a step before it that is not, or that still sets; a reading that was never taken or is
 * out of its limits; pieces or tools that are not here; a document nobody has read; a guess it would settle; an open fault that can
 * hurt; and where power comes on, a branch that is half wired. Of a part or tool nobody has noted anything of, nothing is known:
 * that keeps no step, and is for the builder to see.
 */
final readonly class Gate
{
    /**
     * @param  string  $kind  step, sets, reading, part, tool, document, guess, fault or power
     * @param  string|null  $ref  of the step, need, document or fault it waits for
     */
    private function __construct(public string $kind, public string $says, public ?string $ref)
    {
    }

    /**
     * @param  array<string, int>|null  $here  as here() gives it, where many steps are asked one after another
     * @param  int|null  $now  Unix seconds; without it nothing is said of what still sets
     * @return list<self> empty when it may be done
     */
    public static function closed(Build $build, Step $step, ?array $here = null, ?int $now = null): array
    {
        $here ??= $step->uses === [] && $step->tools === [] ? [] : self::here($build);

        return [
            ...self::steps($build, $step),
            ...$now === null ? [] : self::sets($build, $step, $now),
            ...self::reading($step),
            ...self::parts($build, $step, $here),
            ...$step->tools === [] ? [] : self::tools($build, $step, $here),
            ...self::documents($build, $step),
            ...self::guesses($build, $step),
            ...self::faults($build, $step),
            ...$step->energises ? self::power($build, $step) : [],
        ];
    }

    /**
     * Of what is closed, what no reason opens: an act that cannot be taken back waits for all that comes before it. Its own
     * reading is taken at it.
     *
     * @param  list<self>  $closed
     * @return list<self>
     */
    public static function locked(Step $step, array $closed): array
    {
        return $step->act === null
            ? []
            : array_values(array_filter($closed, static fn (self $g): bool => $g->kind !== 'reading'));
    }

    /**
     * @return array{kind: string, says: string, ref: string|null}
     */
    public function toArray(): array
    {
        return ['kind' => $this->kind, 'says' => $this->says, 'ref' => $this->ref];
    }

    /**
     * @return list<self>
     */
    private static function steps(Build $build, Step $step): array
    {
        return array_map(
            static fn (string $ref): self => new self('step', "“{$build->steps[$ref]->title}” comes first", $ref),
            Sequence::waitsFor($step, $build->steps),
        );
    }

    /**
     * @return list<self>
     */
    private static function reading(Step $step): array
    {
        $check = $step->check;

        return match (true) {
            $check === null => [],
            $check->measured === null => [new self('reading', "{$check->what} was not measured", null)],
            Reading::verdict($check) === Verdict::Fails => [
                new self(
                    'reading',
                    "{$check->what}: {$check->measured} is out of {$check->nominal} ± {$check->tolerance}",
                    null,
                ),
            ],
            default => [],
        };
    }

    /**
     * @param  array<string, int>  $here
     * @return list<self>
     */
    private static function parts(Build $build, Step $step, array $here): array
    {
        $gates = [];
        foreach ($step->uses as $need => $pieces) {
            $fitted = $build->fitted((string) $need);
            $there = $fitted === null ? null : $here[$fitted->part->ref] ?? null;
            // What went in at this very step was there for it.
            $there = $there === null || $step->state !== StepState::Done ? $there : $there + $pieces;
            if ($fitted !== null && $there !== null && $there < $pieces) {
                $gates[] = new self(
                    'part',
                    $there <= 0
                        ? "{$fitted->need->role} is not here"
                        : "{$fitted->need->role}: {$there} of {$pieces} are here",
                    (string) $need,
                );
            }
        }

        return $gates;
    }

    /**
     * @return array<string, int> pieces in the workshop of each part of which anything is noted, less those that went in
     *     at steps that are done
     */
    public static function here(Build $build): array
    {
        $here = [];
        foreach ($build->needs as $need) {
            if ($need->choice !== null && $need->owned > 0) {
                $here[$need->choice] = ($here[$need->choice] ?? 0) + $need->owned;
            }
        }
        foreach ($build->purchases as $purchase) {
            if (self::counts($purchase)) {
                $here[$purchase->part] = ($here[$purchase->part] ?? 0) + $purchase->here();
            }
        }
        foreach ($build->prints as $run) {
            if (! $run->fit) {
                $here[$run->part] = ($here[$run->part] ?? 0) + $run->made();
            }
        }

        foreach ($build->steps as $step) {
            foreach ($step->state === StepState::Done ? $step->uses : [] as $need => $pieces) {
                $part = $build->fitted((string) $need)?->part->ref;
                if ($part !== null && isset($here[$part])) {
                    $here[$part] -= $pieces;
                }
            }
        }

        return $here;
    }

    private static function counts(Purchase $purchase): bool
    {
        return $purchase->state === PurchaseState::Ordered ||
            $purchase->state === PurchaseState::Shipped ||
            $purchase->received > 0;
    }

    /**
     * Glue or paint of a step before it that is not hard yet.
     *
     * @return list<self>
     */
    private static function sets(Build $build, Step $step, int $now): array
    {
        $gates = [];
        foreach ($step->after as $ref) {
            $hours = self::hoursToSet($build->steps[$ref] ?? null, $now);
            if ($hours > 0) {
                $gates[] = new self(
                    'sets',
                    sprintf('“%s” has to set for another %.1f h', $build->steps[$ref]->title, $hours),
                    $ref,
                );
            }
        }

        return $gates;
    }

    /** Hours until what was glued or painted at a step has set; none where it has, or where nobody stopped a clock. */
    public static function hoursToSet(?Step $step, int $now): float
    {
        $stops = array_filter(
            array_map(static fn (Timing $t): ?int => $t->stop, $step->timings ?? []),
            static fn (?int $stop): bool => $stop !== null,
        );

        return $step?->sets === null || $step->state !== StepState::Done || $stops === []
            ? 0.0
            : max(0.0, $step->sets->in('h') - ($now - max($stops)) / 3600);
    }

    /**
     * Tools that are on the list by name and are neither owned nor here.
     *
     * @param  array<string, int>  $here
     * @return list<self>
     */
    private static function tools(Build $build, Step $step, array $here): array
    {
        $gates = [];
        $asked = array_flip(array_map(mb_strtolower(...), $step->tools));
        foreach ($build->allFitted() as $need => $fitted) {
            $isAsked =
                isset($asked[mb_strtolower($fitted->need->role)]) || isset($asked[mb_strtolower($fitted->part->name)]);
            $isTool = $fitted->part->family->account() === Account::Tool;
            if ($isAsked && $isTool && ($here[$fitted->part->ref] ?? 1) < 1) {
                $gates[] = new self('tool', "{$fitted->need->role} is not at hand", (string) $need);
            }
        }

        return $gates;
    }

    /**
     * What is said of a step by documents that prevail there, and that nobody has read.
     *
     * @return list<self>
     */
    private static function documents(Build $build, Step $step): array
    {
        return array_map(
            static fn (Document $d): self => new self('document', "“{$d->title}” is not read", $d->ref),
            array_values(
                array_filter(
                    Papers::prevailing($build->documents, $step->ref),
                    static fn (Document $d): bool => $d->read === null,
                ),
            ),
        );
    }

    /**
     * What was guessed before it, and shows at it.
     *
     * @return list<self>
     */
    private static function guesses(Build $build, Step $step): array
    {
        $gates = [];
        foreach ($build->steps as $other) {
            foreach ($other->guesses as $guess) {
                if ($guess->settledBy === $step->ref && $guess->settled === null && $other->state === StepState::Done) {
                    $gates[] = new self(
                        'guess',
                        "“{$guess->what}” was a guess: say what it turned out to be",
                        $other->ref,
                    );
                }
            }
        }

        return $gates;
    }

    /**
     * Where power comes on: no open danger anywhere, and no branch joined at one end only.
     *
     * @return list<self>
     */
    private static function power(Build $build, Step $step): array
    {
        $gates = [];
        foreach ($build->faults as $fault) {
            if ($fault->forbidsPower() && ! self::concerns($fault, $step)) {
                $gates[] = new self('power', "open danger: {$fault->what}", $fault->ref);
            }
        }
        foreach ($build->leads as $lead) {
            if (self::isHalf($lead)) {
                $gates[] = new self(
                    'power',
                    "{$build->leadInWords($lead)}, is joined at one end only",
                    $lead->ref,
                );
            }
        }

        return $gates;
    }

    /** Whether a lead is joined at one end and not at the other. */
    public static function isHalf(Lead $lead): bool
    {
        $made = count(array_filter($lead->ends, static fn (LeadEnd $end): bool => $end->made));

        return ! $lead->made && $made > 0 && $made < 2;
    }

    private static function concerns(Fault $fault, Step $step): bool
    {
        return $fault->step === $step->ref || isset($step->uses[$fault->need ?? '']);
    }

    /**
     * @return list<self>
     */
    private static function faults(Build $build, Step $step): array
    {
        $gates = [];
        foreach ($build->faults as $fault) {
            if (self::concerns($fault, $step) && $fault->forbidsPower()) {
                $gates[] = new self('fault', "open danger: {$fault->what}", $fault->ref);
            }
        }

        return $gates;
    }
}
