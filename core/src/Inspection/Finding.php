<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Quantity\Quantity;

/**
 * What one check says of one subject, with everything it rests on.
 */
final readonly class Finding
{
    /**
     * @param  string  $headline  one sentence a builder can act on
     * @param  Quantity|null  $margin  share of the limit still free; negative when it is exceeded
     * @param  list<WorkingStep>  $working
     * @param  list<Input>  $inputs
     * @param  list<string>  $missing  what must be known before the check can pass
     * @param  Verdict|null  $otherwise  what it would be if its evidence were strong enough
     * @param  array<string, string>  $wanted  of what is missing: where it would be written
     * @param  Stage|null  $later  how far the build must be before what is missing can be told; null when that is now
     * @param  Verdict|null  $could  the worst it may come to once what is missing is known
     * @param  string|null  $cause  what it shares with other findings that have the same cause, where its rule says so
     * @param  array<string, true>  $sizes  of what is missing: sizes of things that are there
     * @param  array<string, array{string, Quantity}>  $figures  what a builder asks for beside the verdict: label and value, by a
     *     key of the check's own
     * @param  string|null  $said  the headline without what keeps it from being proven
     * @param  list<array{label: string, where: string, from: Quantity, to: Quantity}>  $whatever  what it stands for, whatever
     *     that is between two bounds
     * @param  list<string>  $leads  it speaks of, where its subject is none
     * @param  string|null  $trouble  why the rule itself could not be carried through, and where, for the log
     */
    public function __construct(
        public Card $card,
        public Subject $subject,
        public Verdict $verdict,
        public string $headline,
        public ?Quantity $margin,
        public ?string $limit,
        public array $working,
        public array $inputs,
        public array $missing = [],
        public ?string $scenario = null,
        public ?Verdict $otherwise = null,
        public array $wanted = [],
        public ?string $trouble = null,
        public array $figures = [],
        public array $leads = [],
        public array $whatever = [],
        public ?string $said = null,
        public array $sizes = [],
        public ?Stage $later = null,
        public ?Verdict $could = null,
        public ?string $cause = null,
    ) {
    }

    public function key(): string
    {
        return $this->card->id.'/'.$this->subject->ref;
    }

    /**
     * What it says once some values are what they are meant to be: its own verdict, or the one it would have, where
     * nothing else keeps it from that.
     *
     * @param  list<string>  $fitted  where these values stand, as Input::$where
     */
    public function onceFitted(array $fitted): Verdict
    {
        if ($this->otherwise === null || $this->missing !== [] || $fitted === []) {
            return $this->verdict;
        }
        foreach ($this->inputs as $input) {
            if ($input->evidence->isWeakerThan($this->card->asks) && ! in_array($input->where, $fitted, true)) {
                return $this->verdict;
            }
        }

        return $this->otherwise;
    }

    /** What it says and what that rests on, in short: the same as long as both are. */
    public function digest(): string
    {
        $inputs = array_map(static fn (Input $i): string => "{$i->where}={$i->value()}", $this->inputs);
        sort($inputs);

        return substr(sha1(implode("\n", [$this->verdict->value, ...$inputs, ...$this->missing])), 0, 16);
    }

    /** The same doubt, with the worst it may come to. */
    public function coming(Verdict $could): self
    {
        $all = get_object_vars($this);

        return new self(...['could' => $could] + $all); // @phpstan-ignore argument.type (its own members)
    }

    public function weakest(): ?Evidence
    {
        return $this->inputs === []
            ? null
            : Evidence::weakest(...array_map(static fn (Input $i): Evidence => $i->evidence, $this->inputs));
    }

    /**
     * The line of a list: what is wrong and how bad, without the working.
     *
     * @return array<string, mixed>
     */
    public function summary(): array
    {
        return [
            'key' => $this->key(),
            'check' => $this->card->id,
            'title' => $this->card->title,
            'trade' => $this->card->trade->value,
            'subject' => [
                'kind' => $this->subject->kind,
                'ref' => $this->subject->ref,
                'label' => $this->subject->label,
                'needs' => $this->subject->needs,
                'leads' => $this->leads,
            ],
            'verdict' => $this->verdict->value,
            'otherwise' => $this->otherwise?->value,
            'headline' => $this->headline,
            'margin' => $this->margin === null ? null : round($this->margin->in(''), 4),
            'weakest' => $this->weakest()?->value,
            'scenario' => $this->scenario,
            'later' => $this->later?->value,
            'could' => $this->could?->value,
        ];
    }

    /**
     * The whole of it, in the shape documented in docs/format/inspection.md.
     *
     * @return array<string, mixed>
     */
    public function toArray(): array
    {
        return $this->summary() + [
            'question' => $this->card->question,
            'limit' => $this->limit,
            'source' => $this->card->source,
            'asks' => $this->card->asks->value,
            'figures' => array_map(
                static fn (string $key, array $f): array => ['key' => $key, 'label' => $f[0], 'value' => (string) $f[1]],
                array_keys($this->figures),
                array_values($this->figures),
            ),
            'working' => array_map(static fn (WorkingStep $s): array => $s->toArray(), $this->working),
            'inputs' => array_map(static fn (Input $i): array => $i->toArray(), $this->inputs),
            'digest' => $this->digest(),
            'missing' => $this->missing,
            'whatever' => array_map(
                static fn (array $w): array => [
                    'label' => $w['label'],
                    'where' => $w['where'],
                    'from' => (string) $w['from'],
                    'to' => (string) $w['to'],
                ],
                $this->whatever,
            ),
        ];
    }
}
