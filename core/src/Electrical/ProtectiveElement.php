<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Lead;
use Magpie\Core\Machine\PortKind;
use Magpie\Core\Quantity\Quantity;

/** The fuse, breaker or limited output that protects a lead, with the leads whose currents go through it together. */
final readonly class ProtectiveElement
{
    /**
     * @param  list<string>  $leads  refs of the leads that carry, together, what it carries
     * @param  string  $kind  "fuse", or "limit" of an output that limits itself
     */
    private function __construct(
        public Quantity $rating,
        public string $where,
        public Fitted $fitted,
        public array $leads,
        public string $kind = 'fuse',
    ) {
    }

    /**
     * The nearest one before a lead: named in it, drawn in the line, or in the part it comes from.
     *
     * @throws \Magpie\Core\Inspection\InputMissing when a fuse is named whose part or rating is not known
     */
    public static function before(Inquiry $inquiry, Survey $survey, Lead $lead): ?self
    {
        $topology = Circuits::of($survey)->topology;
        $named = self::named($inquiry, $survey, $lead);
        if ($named !== null) {
            return $named;
        }
        $node = $topology->nearEnd($lead->ref);
        while (true) {
            [$fitted, $port] = $topology->at($node);
            foreach (['fuse_rating' => 'fuse', 'limits_at' => 'limit'] as $key => $kind) {
                $rating = $inquiry->tryPort($fitted, $port, $key, 'I_r', Bound::Highest);
                if ($rating?->isPositive() === true) {
                    $through = self::through($topology, $node, $port->kind);

                    return new self($rating, $fitted->need->role, $fitted, $through, $kind);
                }
            }
            $index = $topology->upstream($node);
            if ($index === null) {
                return null;
            }
            $joint = $topology->joints[$index];
            $node = $joint->a === $node ? $joint->b : $joint->a;
            $upstream = $topology->leadOf($joint);
            $named = $upstream === null ? null : self::named($inquiry, $survey, $upstream);
            if ($named !== null) {
                return $named;
            }
        }
    }

    private static function named(Inquiry $inquiry, Survey $survey, Lead $lead): ?self
    {
        if ($lead->protection === null) {
            return null;
        }
        $fuse =
            $inquiry->build->fitted($lead->protection) ??
            $inquiry->lack("a part for {$inquiry->build->roleOf($lead->protection)}");

        return new self(
            $inquiry->read($fuse, 'rated_current', 'I_r', Bound::Highest),
            $fuse->need->role,
            $fuse,
            self::sharing($survey, $fuse, $lead),
        );
    }

    /**
     * Leads that name the same fuse side by side. One behind another carries nothing the first does not; where there are
     * as many pieces as leads, each has its own; where there are fewer, the worst that one piece may get.
     *
     * @return list<string>
     */
    private static function sharing(Survey $survey, Fitted $fuse, Lead $lead): array
    {
        $topology = Circuits::of($survey)->topology;
        $naming = array_values(array_filter(FusedLeads::of($survey)->by($fuse->need->ref), $topology->carries(...)));
        $heads = [];
        foreach ($naming as $ref) {
            $before = array_map(
                static fn (Joint $joint): ?string => $joint->lead,
                $topology->wayBack($topology->nearEnd($ref)),
            );
            if (array_intersect($naming, $before) === []) {
                $heads[] = $ref;
            }
        }
        if ($fuse->need->quantity >= count($heads)) {
            return [$lead->ref];
        }
        usort($heads, static fn (string $a, string $b): int => self::most($survey, $b) <=> self::most($survey, $a));

        return array_slice($heads, 0, count($heads) - $fuse->need->quantity + 1);
    }

    private static function most(Survey $survey, string $lead): float
    {
        $circuits = Circuits::of($survey);

        return $circuits->worstFor($lead)?->current($lead)?->in('A') ?? 0.0;
    }

    /**
     * @return list<string> leads that carry what goes through a port: away from a source or an outlet, to an inlet
     */
    private static function through(Topology $topology, int $node, PortKind $kind): array
    {
        $feeding = $topology->upstream($node);
        $leads = [];
        foreach (array_keys($topology->around($node)) as $joint) {
            $isLead = $topology->joints[$joint]->lead !== null;
            if ($isLead && ($kind === PortKind::Inlet) === ((string) $joint === $feeding)) {
                $leads[] = (string) $joint;
            }
        }

        return $leads;
    }
}
