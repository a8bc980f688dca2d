<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Reference\FuseBands;

/** The fuse, breaker or limited output that protects leads, with the leads whose currents go through it together. */
final readonly class ProtectiveElement
{
    /** How many times what it may carry a conductor bears for an hour (IEC 60364-4-43 §433.1). */
    public const FOR_AN_HOUR = 1.45;

    /**
     * @param  bool  $opens  it opens at more than its rating, as a fuse does; else it holds its current there
     * @param  non-empty-list<string>  $bands  of FuseBands, that it may have by what is known of it
     * @param  string|null  $asks  where its kind would be written, when more than one band is left
     */
    private function __construct(
        public string $key,
        public Quantity $rating,
        public Fitted $fitted,
        public bool $opens,
        public array $bands,
        public ?string $asks,
    ) {
    }

    /**
     * @param  string  $key  as ProtectionZones has it
     * @return self|null null for a source that has none
     *
     * @throws \Magpie\Core\Inspection\InputMissing when its part or its rating is not known
     */
    public static function of(Inquiry $inquiry, string $key): ?self
    {
        [$need, $name] = ProtectionZones::placeOf($key);
        $fitted = $inquiry->build->fitted($need) ?? $inquiry->lack("a part for {$inquiry->build->roleOf($need)}");
        $port = $name === null ? null : $fitted->part->ports[$name] ?? null;
        if ($port === null) {
            $rating = $inquiry->read($fitted, 'rated_current', 'I_n', Bound::Highest);
        } elseif (! ProtectionZones::protects($fitted, $port)) {
            return null;
        } else {
            $fuse = $inquiry->tryPort($fitted, $port, 'fuse_rating', 'I_n', Bound::Highest);
            $limit =
                $fuse?->isPositive() === true
                    ? null
                    : $inquiry->tryPort($fitted, $port, 'limits_at', 'I_n', Bound::Highest);
            if ($limit?->isPositive() === true) {
                return new self($key, $limit, $fitted, false, ['blade'], null);
            }
            $rating =
                $fuse?->isPositive() === true
                    ? $fuse
                    : $inquiry->port($fitted, $port, 'fuse_rating', 'I_n', Bound::Highest);
        }
        if (! $rating->isPositive()) {
            $inquiry->lack("a rating of {$fitted->need->role} above nought");
        }
        [$bands, $asks] = self::bands($inquiry, $fitted, $port);

        return new self($key, $rating, $fitted, true, $bands, $asks);
    }

    /**
     * @return array{non-empty-list<string>, string|null}
     */
    private static function bands(Inquiry $inquiry, Fitted $fitted, ?Port $port): array
    {
        $own = $port === null ? null : $inquiry->tryPortWord($fitted, $port, 'fuse_kind')?->choice();
        $field = $fitted->part->family->field('fuse_kind') === null ? 'kind' : 'fuse_kind';
        $kind = $own ?? $inquiry->tryChoice($fitted, $field);
        $speed = $inquiry->tryChoice($fitted, 'speed');
        $bands = FuseBands::bands($kind, $speed);
        $asked = $kind === null ? $field : 'speed';
        $onSheet = $fitted->part->family->field($asked) !== null;
        $where = $onSheet
            ? "parts/{$fitted->part->ref}/specs/{$asked}"
            : "parts/{$fitted->part->ref}/ports/".($port->name ?? '').'/specs/fuse_kind';

        return [$bands, count($bands) > 1 ? $where : null];
    }

    /** What it is called: "10 A fuse (main fuse)". */
    public function named(): string
    {
        return "{$this->rating} ".($this->opens ? 'fuse' : 'limit')." ({$this->fitted->need->role})";
    }

    /** Whether it keeps every current that lasts below what a lead may carry, or opens within the hour (§433.1, §435.1). */
    public function coversOverload(Quantity $ampacity): bool
    {
        if ($this->rating->exceeds($ampacity)) {
            return false;
        }
        $opensAt = max(array_map(FuseBands::surely(...), $this->bands));

        return ! $this->opens || ! $this->rating->times($opensAt)->exceeds($ampacity->times(self::FOR_AN_HOUR));
    }

    /**
     * Leads whose sum goes through it: away from an outlet, to an inlet, and those that name it. Of such leads one behind
     * another only the first counts. Where there are as many pieces as leads that name it, each has its own; with fewer, the
     * worst that one piece may get.
     *
     * @return list<list<string>> what each piece carries
     */
    public function loads(Survey $survey): array
    {
        $topology = Circuits::of($survey)->topology;
        $node = $topology->node($this->key);
        $through = $node === null ? [] : self::through($topology, $node);
        $naming = ProtectionZones::of($survey)->naming($this->fitted->need->ref);
        $all = array_values(array_unique([...$through, ...$naming]));
        $first = [];
        foreach ($all as $ref) {
            $before = array_map(
                static fn (Joint $joint): ?string => $joint->lead,
                $topology->wayBack($topology->nearEnd($ref)),
            );
            if (array_intersect($all, $before) === []) {
                $first[] = $ref;
            }
        }
        $pieces = $this->fitted->need->quantity;
        if (array_diff($first, $naming) === [] && count($first) <= $pieces) {
            return array_map(static fn (string $ref): array => [$ref], $first);
        }
        usort($first, static fn (string $a, string $b): int => self::most($survey, $b) <=> self::most($survey, $a));

        return [array_slice($first, 0, max(1, count($first) - $pieces + 1))];
    }

    private static function most(Survey $survey, string $lead): float
    {
        $circuits = Circuits::of($survey);

        return $circuits->worstFor($lead)?->current($lead)?->in('A') ?? 0.0;
    }

    /**
     * @return list<string> leads that carry what goes through a port: away from a source or an outlet, to an inlet
     */
    private static function through(Topology $topology, int $node): array
    {
        $kind = $topology->at($node)[1]->kind;
        $feeding = $topology->upstream($node);
        $leads = [];
        foreach (array_keys($topology->around($node)) as $joint) {
            $lead = $topology->joints[$joint]->lead;
            if ($lead !== null && ($kind === PortKind::Inlet) === ((string) $joint === $feeding)) {
                $leads[] = $lead;
            }
        }

        return $leads;
    }

    /**
     * Elements between a lead's own and its source, nearest first.
     *
     * @return iterable<self>
     */
    public static function beyond(Inquiry $inquiry, Survey $survey, Lead $lead, string $own): iterable
    {
        $topology = Circuits::of($survey)->topology;
        $node = $topology->nearEnd($lead->ref);
        while (true) {
            [$fitted, $port] = $topology->at($node);
            $found = ["{$fitted->need->ref}.{$port->name}"];
            $index = $topology->upstream($node);
            $joint = $index === null ? null : $topology->joints[$index];
            $found[] = $joint === null ? null : ProtectionZones::ofLead($topology, $topology->leadOf($joint));
            foreach (array_filter($found) as $key) {
                $element = $key === $own ? null : self::of($inquiry, $key);
                if ($element !== null) {
                    yield $element;
                }
            }
            if ($joint === null) {
                return;
            }
            $node = $joint->a === $node ? $joint->b : $joint->a;
        }
    }
}
