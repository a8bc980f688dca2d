<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

/** A piece of work that follows from the model. */
final readonly class StepDraft
{
    /**
     * @param  string  $key  what it follows from: "join/mx", "lead/W3"; the same as long as that is there
     * @param  int  $rank  how early it belongs: frame, guides, drives, tool, electrics, wiring, tests, covers
     * @param  array<string, int>  $uses  need → pieces that go in
     * @param  list<string>  $after  keys of what comes first
     * @param  list<string>  $tools
     * @param  list<string>  $cautions
     * @param  list<string>  $notes
     * @param  array{what: string, nominal: string, tolerance: string}|null  $check
     * @param  float  $hours  a practised builder takes
     * @param  list<string>  $leads  it makes
     * @param  list<string>  $lays  needs it lays in that a joint tightens later
     */
    public function __construct(
        public string $key,
        public int $rank,
        public string $title,
        public array $uses = [],
        public array $after = [],
        public array $tools = [],
        public array $cautions = [],
        public array $notes = [],
        public ?array $check = null,
        public float $hours = 0.2,
        public array $leads = [],
        public array $lays = [],
    ) {
    }

    public function section(): string
    {
        return Derivation::SECTIONS[$this->rank];
    }

    public function isCover(): bool
    {
        return $this->rank === array_key_last(Derivation::SECTIONS);
    }

    /** The same with one thing more to know. */
    public function noting(string $note): self
    {
        return new self(
            $this->key,
            $this->rank,
            $this->title,
            $this->uses,
            $this->after,
            $this->tools,
            $this->cautions,
            [...$this->notes, $note],
            $this->check,
            $this->hours,
            $this->leads,
            $this->lays,
        );
    }

    /**
     * @param  list<string>  $after
     */
    public function coming(array $after): self
    {
        return new self(
            $this->key,
            $this->rank,
            $this->title,
            $this->uses,
            array_values(array_unique($after)),
            $this->tools,
            $this->cautions,
            $this->notes,
            $this->check,
            $this->hours,
            $this->leads,
            $this->lays,
        );
    }

    /**
     * @return array{key: string, section: string, title: string, uses: array<string, int>, after: list<string>,
     *     tools: list<string>, cautions: list<string>, notes: list<string>,
     *     check: array{what: string, nominal: string, tolerance: string}|null, hours: float, leads: list<string>}
     */
    public function toArray(): array
    {
        return [
            'key' => $this->key,
            'section' => $this->section(),
            'title' => $this->title,
            'uses' => $this->uses,
            'after' => $this->after,
            'tools' => $this->tools,
            'cautions' => $this->cautions,
            'notes' => $this->notes,
            'check' => $this->check,
            'hours' => round($this->hours, 2),
            'leads' => $this->leads,
        ];
    }
}
