<?php

declare(strict_types=1);

namespace Magpie\Core\Machine;

use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Buying\Purchase;
use Magpie\Core\Machine\Buying\Rate;
use Magpie\Core\Machine\Buying\Supplier;
use Magpie\Core\Machine\Choosing\Decision;
use Magpie\Core\Machine\Choosing\Route;
use Magpie\Core\Machine\Placing\Place;
use Magpie\Core\Machine\Running\Alignment;
use Magpie\Core\Machine\Running\Job;
use Magpie\Core\Machine\Running\PowerAttempt;
use Magpie\Core\Machine\Running\Reading;
use Magpie\Core\Machine\Running\RungRecord;
use Magpie\Core\Machine\Running\TestPiece;
use Magpie\Core\Machine\Running\UpkeepRound;
use Magpie\Core\Machine\Work\Bag;
use Magpie\Core\Machine\Work\Document;
use Magpie\Core\Machine\Work\Fault;
use Magpie\Core\Machine\Work\Printer;
use Magpie\Core\Machine\Work\PrintRun;
use Magpie\Core\Machine\Work\Question;
use Magpie\Core\Machine\Work\Step;

/**
 * Everything a check needs, nothing else. A value: same build, same inspection. Where someone listens, it tells what is
 * read of it: one entry through lead(), need() and the like, or a whole collection by its name.
 *
 * @property-read Plan $plan
 * @property-read Site $site
 * @property-read array<string, Part> $parts
 * @property-read array<string, Need> $needs
 * @property-read array<string, Lead> $leads
 * @property-read array<string, Mate> $mates
 * @property-read array<string, Scenario> $scenarios
 * @property-read array<string, Supplier> $suppliers
 * @property-read array<string, Offer> $offers
 * @property-read array<string, Rate> $rates
 * @property-read array<string, Purchase> $purchases
 * @property-read array<string, Step> $steps
 * @property-read array<string, Fault> $faults
 * @property-read array<string, Limit> $limits
 * @property-read Brief $brief
 * @property-read array<string, Workpiece> $workpieces
 * @property-read array<string, Axis> $axes
 * @property-read array<string, Route> $routes
 * @property-read array<string, Decision> $decisions
 * @property-read array<string, Revision> $revisions
 * @property-read array<string, Zone> $zones
 * @property-read array<string, Clearance> $clearances
 * @property-read array<string, Setting> $settings
 * @property-read array<string, Acceptance> $accepted
 * @property-read array<string, Printer> $printers
 * @property-read array<string, PrintRun> $prints
 * @property-read array<string, Document> $documents
 * @property-read array<string, Bag> $bags
 * @property-read array<string, Question> $questions
 * @property-read array<string, Reading> $readings
 * @property-read array<string, RungRecord> $rungs
 * @property-read array<string, PowerAttempt> $attempts
 * @property-read array<string, Alignment> $alignments
 * @property-read array<string, Job> $jobs
 * @property-read array<string, UpkeepRound> $rounds
 * @property-read array<string, TestPiece> $tests
 * @property-read array<string, Place> $places
 * @property-read array<string, Part> $stands
 */
final readonly class Build
{
    /** @var array<string, Zone> need → the first place that holds it */
    private array $zoned;

    /**
     * @param  array<string, Part>  $parts
     * @param  array<string, Need>  $needs
     * @param  array<string, Lead>  $leads
     * @param  array<string, Mate>  $mates
     * @param  array<string, Scenario>  $scenarios
     * @param  array<string, Supplier>  $suppliers
     * @param  array<string, Offer>  $offers
     * @param  array<string, Rate>  $rates
     * @param  array<string, Purchase>  $purchases
     * @param  array<string, Step>  $steps
     * @param  array<string, Fault>  $faults
     * @param  array<string, Limit>  $limits
     * @param  array<string, Workpiece>  $workpieces
     * @param  array<string, Axis>  $axes
     * @param  array<string, Route>  $routes
     * @param  array<string, Decision>  $decisions
     * @param  array<string, Revision>  $revisions
     * @param  array<string, Zone>  $zones
     * @param  array<string, Clearance>  $clearances
     * @param  array<string, Setting>  $settings
     * @param  array<string, Acceptance>  $accepted
     * @param  array<string, Printer>  $printers
     * @param  array<string, PrintRun>  $prints
     * @param  array<string, Document>  $documents
     * @param  array<string, Bag>  $bags
     * @param  array<string, Question>  $questions
     * @param  array<string, Reading>  $readings
     * @param  array<string, RungRecord>  $rungs
     * @param  array<string, PowerAttempt>  $attempts
     * @param  array<string, Alignment>  $alignments
     * @param  array<string, Job>  $jobs
     * @param  array<string, UpkeepRound>  $rounds
     * @param  array<string, TestPiece>  $tests
     * @param  array<string, Place>  $places
     * @param  array<string, Part>  $stands  need → the part in it as it was measured there, where that is another than its sheet says
     * @param  Reads|null  $reads  who is told what is read
     */
    public function __construct(
        private Plan $plan,
        private Site $site = new Site,
        private array $parts = [],
        private array $needs = [],
        private array $leads = [],
        private array $mates = [],
        private array $scenarios = [],
        private array $suppliers = [],
        private array $offers = [],
        private array $rates = [],
        private array $purchases = [],
        private array $steps = [],
        private array $faults = [],
        private array $limits = [],
        private Brief $brief = new Brief,
        private array $workpieces = [],
        private array $axes = [],
        private array $routes = [],
        private array $decisions = [],
        private array $revisions = [],
        private array $zones = [],
        private array $clearances = [],
        private array $settings = [],
        private array $accepted = [],
        private array $printers = [],
        private array $prints = [],
        private array $documents = [],
        private array $bags = [],
        private array $questions = [],
        private array $readings = [],
        private array $rungs = [],
        private array $attempts = [],
        private array $alignments = [],
        private array $jobs = [],
        private array $rounds = [],
        private array $tests = [],
        private array $places = [],
        private array $stands = [],
        private ?Reads $reads = null,
    ) {
        $zoned = [];
        foreach ($zones as $zone) {
            $zoned += array_fill_keys($zone->holds, $zone);
        }
        $this->zoned = $zoned;
    }

    public function __get(string $name): mixed
    {
        $this->reads?->note($name);

        return $this->{$name};
    }

    public function __isset(string $name): bool
    {
        return isset($this->{$name});
    }

    /**
     * The same build with some of its members put in another's place.
     *
     * @param  array<string, mixed>  $members  by the name of the property
     */
    public function with(array $members): self
    {
        return new self(...$members + array_diff_key(get_object_vars($this), ['zoned' => true]));
    }

    /**
     * The same build, which tells what is read of it.
     *
     * @param  self|null  $like  one that tells already, whose parts are taken where they are the same
     * @param  array<string, Part>  $were  the parts that one was made from
     */
    public function toldTo(Reads $reads, ?self $like = null, array $were = []): self
    {
        $parts = [];
        foreach ($this->parts as $ref => $part) {
            $parts[$ref] =
                ($were[$ref] ?? null) === $part && $like !== null ? $like->parts[$ref] : $part->toldTo($reads);
        }
        $stands = array_map(static fn (Part $part): Part => $part->toldTo($reads), $this->stands);

        return $this->with(['parts' => $parts, 'stands' => $stands, 'reads' => $reads]);
    }

    /** Who is told what is read, if anyone. */
    public function reads(): ?Reads
    {
        return $this->reads;
    }

    public function need(string $ref): ?Need
    {
        $this->reads?->note("needs/{$ref}");

        return $this->needs[$ref] ?? null;
    }

    public function part(string $ref): ?Part
    {
        $this->reads?->note("parts/{$ref}");

        return $this->parts[$ref] ?? null;
    }

    public function lead(string $ref): ?Lead
    {
        $this->reads?->note("leads/{$ref}");

        return $this->leads[$ref] ?? null;
    }

    /**
     * From where to where each lead runs, and nothing else of it.
     *
     * @return iterable<string, array{PortRef, PortRef}>
     */
    public function runs(): iterable
    {
        $this->reads?->note('runs');
        foreach ($this->leads as $ref => $lead) {
            yield $ref => [$lead->from, $lead->to];
        }
    }

    /**
     * What is joined to what, end to end: through plugs, terminals and splices, as if they were not there.
     *
     * @return iterable<string, array{PortRef, PortRef}> by the lead at the first end; each pair once
     */
    public function linked(): iterable
    {
        $joins = [...$this->fittedThat(Ability::Joins)];
        $told = [];
        foreach ($this->runs() as $ref => [$from, $to]) {
            [$near, $far] = [isset($joins[$from->need]), isset($joins[$to->need])];
            if (! $near && ! $far) {
                yield $ref => [$from, $to];
            }
            if ($near === $far) {
                continue;
            }
            foreach ($this->beyond($far ? $to : $from, (string) $ref) as $end) {
                $pair = $far ? [$from, $end] : [$end, $to];
                $names = [$pair[0]->text(), $pair[1]->text()];
                sort($names);
                if (! isset($told[implode(' ', $names)])) {
                    $told[implode(' ', $names)] = true;
                    yield $ref => $pair;
                }
            }
        }
    }

    /**
     * Where a line goes on from an end of a lead: that end itself, or, where it is a plug, terminal or splice, the far
     * ends of the other leads on the same circuit of it.
     *
     * @param  string  $by  the lead one comes by
     * @return list<PortRef>
     */
    public function beyond(PortRef $at, string $by): array
    {
        $ends = [];
        $been = [$by => true];
        $queue = [$at];
        while ($queue !== []) {
            $here = array_pop($queue);
            if ($this->fitted($here->need)?->part->can(Ability::Joins) !== true) {
                $ends[$here->text()] = $here;

                continue;
            }
            foreach ($this->runs() as $ref => [$from, $to]) {
                $there = $from->text() === $here->text() ? $to : ($to->text() === $here->text() ? $from : null);
                if ($there !== null && ! isset($been[$ref])) {
                    $been[$ref] = true;
                    $queue[] = $there;
                }
            }
        }

        return array_values($ends);
    }

    /** The same build with another part chosen for one need. */
    public function choosing(string $need, ?string $part): self
    {
        $same = $this->needs[$need]->choice === $part;

        return $this->with([
            'stands' => $same ? $this->stands : array_diff_key($this->stands, [$need => true]),
            'needs' => array_replace($this->needs, [$need => $this->needs[$need]->choosing($part)]),
        ]);
    }

    public function fitted(string $need): ?Fitted
    {
        $found = $this->need($need);
        $part = $found?->choice === null ? null : $this->part($found->choice);

        return $found !== null && $part !== null ? new Fitted($found, $this->stands[$need] ?? $part) : null;
    }

    /**
     * @return iterable<string, Fitted>
     */
    public function allFitted(): iterable
    {
        $this->reads?->note('fitted');
        foreach (array_keys($this->needs) as $ref) {
            $fitted = $this->fitted($ref);
            if ($fitted !== null) {
                yield $ref => $fitted;
            }
        }
    }

    /**
     * @return iterable<string, Fitted>
     */
    public function fittedOf(string ...$families): iterable
    {
        foreach ($families as $family) {
            $this->reads?->note("fitted/{$family}");
        }
        foreach ($this->needs as $ref => $need) {
            $part = $this->parts[$need->choice ?? ''] ?? null;
            $fitted = $part !== null && in_array($part->family->key(), $families, true) ? $this->fitted($ref) : null;
            if ($fitted !== null) {
                yield $ref => $fitted;
            }
        }
    }

    /**
     * @return iterable<string, Fitted> what can do or bear this, by need
     */
    public function fittedThat(Ability $ability): iterable
    {
        $this->reads?->note("able/{$ability->value}");
        foreach ($this->needs as $ref => $need) {
            $part = $this->parts[$need->choice ?? ''] ?? null;
            $fitted = $part?->can($ability) === true ? $this->fitted($ref) : null;
            if ($fitted !== null) {
                yield $ref => $fitted;
            }
        }
    }

    /** How far a need is: as far as is said of it, or of the build; where nobody says, all may be asked. */
    public function stageOf(string $need): Stage
    {
        $this->reads?->note('plan');

        return $this->need($need)->stage ?? ($this->plan->stage ?? Stage::Powered);
    }

    /** The place with an air of its own that a need stands in. */
    public function zoneOf(string $need): ?Zone
    {
        $this->reads?->note('zones');

        return $this->zoned[$need] ?? null;
    }

    public function port(PortRef $ref): ?Port
    {
        return $this->fitted($ref->need)?->part->ports[$ref->port] ?? null;
    }

    /** Whether a lead carries mains. */
    public function isMains(Lead $lead): bool
    {
        return $this->port($lead->from)?->mains === true || $this->port($lead->to)?->mains === true;
    }

    /** What a person calls the thing behind a need: its role, and the part when one is chosen. */
    public function roleOf(string $need): string
    {
        $this->reads?->note("roles/{$need}");

        return $this->needs[$need]->role ?? $need;
    }

    /** What a lead joins, as a person says it: "W4: 24 V supply to board". */
    public function leadInWords(Lead $lead): string
    {
        return "{$lead->ref}: {$this->roleOf($lead->from->need)} to {$this->roleOf($lead->to->need)}";
    }

    /** An open danger fault means the machine must not be powered. */
    public function forbidsPower(): bool
    {
        $this->reads?->note('faults');
        foreach ($this->faults as $fault) {
            if ($fault->forbidsPower()) {
                return true;
            }
        }

        return false;
    }
}
