<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Differences;
use Magpie\Core\Machine\Reads;
use Magpie\Core\Machine\Same;

/**
 * An inspection that stands while its build is edited: after an edit only what read something that changed is judged
 * again. Its findings are those a full inspection of the build would have; where an edit changes how the build hangs
 * together, it is one.
 *
 * A value: after() leaves this one as it is, so that a candidate is tried and dropped at the price of the edit.
 */
final class Standing
{
    /** @var array<int, array{list<Subject>, array<string, true>}> check → its subjects, and cells they follow from */
    private array $subjects = [];

    /** @var array<string, Finding> by key */
    private array $findings = [];

    /** @var array<string, array<string, true>> finding → cells it read */
    private array $cells = [];

    /** @var list<Finding> judged by the last edit, whatever came out */
    private array $judged = [];

    private ?Inspection $inspection = null;

    /** @var array{Build, list<array<string, true>>, Survey, array<string, true>, array<string, true>}|null the last
     *      trial: the build after the edit, cells read by what was tried, its survey as far as that needs one, cells
     *      and entries changed */
    private ?array $tried = null;

    private function __construct(
        public readonly Inspector $inspector,
        private readonly Build $build,
        private Survey $survey,
        private readonly Reads $reads,
        private readonly ReadBy $readBy,
    ) {
    }

    public static function of(Inspector $inspector, Build $build): self
    {
        $build = $inspector->stands($build);
        $reads = new Reads;
        $standing = new self($inspector, $build, new Survey($build->toldTo($reads), $reads), $reads, new ReadBy);
        foreach (array_keys($inspector->checks) as $i) {
            $standing->ask($i, null);
        }
        $standing->judged = array_values($standing->findings);

        return $standing;
    }

    public function build(): Build
    {
        return $this->build;
    }

    public function survey(): Survey
    {
        return $this->survey;
    }

    public function inspection(): Inspection
    {
        return $this->inspection ??= new Inspection($this->survey, array_values($this->findings));
    }

    /**
     * @return array<string, Finding> by key
     */
    public function findings(): array
    {
        return $this->findings;
    }

    /**
     * @return list<string> cells a finding read
     */
    public function cellsOf(string $key): array
    {
        return array_map(strval(...), array_keys($this->cells[$key] ?? []));
    }

    /**
     * @return list<Finding> those the last edit had judged again, changed or not; all of them after a full inspection
     */
    public function judged(): array
    {
        return $this->judged;
    }

    /** The same after an edit. The less of the build is a new object, the sooner it is done. */
    public function after(Build $build): self
    {
        [$asked, $build] = [$build, $this->inspector->stands($build)];
        $laid = $this->laid($asked, $build);
        if ($laid === null) {
            return self::of($this->inspector, $build);
        }
        [$survey, $cells] = $laid;
        $next = new self($this->inspector, $build, $survey, $this->reads, $this->readBy);
        [$next->subjects, $next->findings, $next->cells] = [$this->subjects, $this->findings, $this->cells];
        $stale = array_filter(
            $this->readBy->any($cells),
            fn (string $key): bool => Reads::meet($this->cells[$key] ?? [], $cells),
        );
        $relisted = [];
        foreach ($this->subjects as $i => [, $from]) {
            if (Reads::meet($from, $cells)) {
                $relisted[$i] = true;
            }
        }
        $asked = [];
        foreach ($stale as $key) {
            $check = $this->inspector->numberOf($this->findings[$key]->card->id);
            $asked[$check][$key] = true;
        }
        foreach (array_keys($relisted + $asked) as $i) {
            isset($relisted[$i]) ? $next->ask($i, $asked[$i] ?? []) : $next->askAgain($i, $asked[$i] ?? []);
        }

        return $next;
    }

    /**
     * Some findings as they would be after an edit: those of them that it touches, and nothing else is judged.
     *
     * @param  list<string>  $keys
     * @return array<string, Finding|null> by key; null for one that goes with its subject
     */
    public function trial(Build $build, array $keys): array
    {
        $keys = array_values(array_filter($keys, fn (string $key): bool => isset($this->findings[$key])));
        [$asked, $build] = [$build, $this->inspector->stands($build)];
        $differences = Differences::between($this->build, $build);
        if ($differences === null) {
            $after = $this->after($build)->findings;

            return array_combine($keys, array_map(static fn (string $key): ?Finding => $after[$key] ?? null, $keys));
        }
        $only = $this->readFor($keys);
        [$survey, $cells] = $this->carried($build, $differences->cells, $differences->entries, $only);
        $this->tried = [$asked, $only, $survey, $cells, $differences->entries];
        $found = $listed = [];
        foreach ($keys as $key) {
            $was = $this->findings[$key];
            $i = $this->inspector->numberOf($was->card->id);
            $again = Reads::meet($this->subjects[$i][1], $cells);
            if (! $again && ! Reads::meet($this->cells[$key], $cells)) {
                continue;
            }
            if ($again) {
                $listed[$i] ??= $this->listed($i, $survey);
            }
            $inquiry = $again
                ? $listed[$i][$was->subject->ref] ?? null
                : new Inquiry($survey, $was->card, $was->subject);
            $found[$key] =
                $inquiry === null ? null : $this->inspector->ask($this->inspector->checks[$i], $inquiry, $survey);
        }

        return $found;
    }

    /**
     * @return array<string, Inquiry> those of a check, by the subject
     */
    private function listed(int $check, Survey $survey): array
    {
        $listed = [];
        foreach ($this->inspector->asked($check, $survey) as $inquiry) {
            $listed[$inquiry->subject->ref] = $inquiry;
        }

        return $listed;
    }

    /**
     * The survey of the build after an edit, with what still stands of this one.
     *
     * @param  Build  $asked  the build as it was handed in
     * @param  Build  $build  the same, as it was measured
     * @return array{Survey, array<string, true>}|null and the cells that have changed; null when nothing can stand
     */
    private function laid(Build $asked, Build $build): ?array
    {
        if ($this->tried !== null && $this->tried[0] === $asked) {
            // What is tried first and kept then is laid out once.
            [, $only, $survey, $cells, $entries] = $this->tried;
            $this->tried = null;

            return [$survey, $this->survey->carryRest($survey, $only, $cells, $entries)];
        }
        $differences = Differences::between($this->build, $build);

        return $differences === null ? null : $this->carried($build, $differences->cells, $differences->entries, null);
    }

    /**
     * @param  array<string, true>  $cells
     * @param  array<string, true>  $entries
     * @param  list<array<string, true>>|null  $only  cells read by what is asked for; null for all
     * @return array{Survey, array<string, true>} and all cells that have changed
     */
    private function carried(Build $build, array $cells, array $entries, ?array $only): array
    {
        $told = $build->toldTo($this->reads, $this->survey->build, $this->build->parts);

        return $this->survey->carriedTo($told, $cells, $entries, $only);
    }

    /**
     * @param  list<string>  $keys  findings
     * @return list<array<string, true>> cells each of them read, and its check to tell its subjects
     */
    private function readFor(array $keys): array
    {
        $cells = [];
        foreach ($keys as $key) {
            $cells[] = $this->cells[$key];
            $check = $this->inspector->numberOf($this->findings[$key]->card->id);
            $cells["of {$check}"] = $this->subjects[$check][1];
        }

        return array_values($cells);
    }

    /**
     * Puts a check to its subjects, listed afresh.
     *
     * @param  array<string, true>|null  $stale  findings to judge again though their subject is the same; null for all
     */
    private function ask(int $i, ?array $stale): void
    {
        [$check, $card] = [$this->inspector->checks[$i], $this->inspector->cards[$i]];
        $gone = [];
        foreach ($this->subjects[$i][0] ?? [] as $subject) {
            $gone[$card->id.'/'.$subject->ref] = $subject;
        }
        [$inquiries, $cells] = $this->reads->during(
            fn (): array => iterator_to_array($this->inspector->asked($i, $this->survey), false),
        );
        $listed = array_map(static fn (Inquiry $q): Subject => $q->subject, $inquiries);
        $this->subjects[$i] = [$listed, $cells];
        foreach ($inquiries as $inquiry) {
            $key = $card->id.'/'.$inquiry->subject->ref;
            $same = isset($gone[$key], $this->findings[$key]) && Same::values($gone[$key], $inquiry->subject);
            unset($gone[$key]);
            if ($stale === null || ! $same || isset($stale[$key]) || $inquiry->broken !== null) {
                $this->judge($check, $inquiry, $key);
            }
        }
        foreach ($gone as $key => $subject) {
            unset($this->findings[$key], $this->cells[$key]);
        }
    }

    /**
     * Judges some findings of a check again; its subjects are the same.
     *
     * @param  array<string, true>  $stale
     */
    private function askAgain(int $i, array $stale): void
    {
        [$check, $card] = [$this->inspector->checks[$i], $this->inspector->cards[$i]];
        foreach (array_keys($stale) as $key) {
            $inquiry = new Inquiry($this->survey, $card, $this->findings[$key]->subject);
            $this->judge($check, $inquiry, (string) $key);
        }
    }

    private function judge(Check $check, Inquiry $inquiry, string $key): void
    {
        [$finding, $cells] = $this->reads->during(
            fn (): Finding => $this->inspector->ask($check, $inquiry, $this->survey),
        );
        $this->findings[$key] = $finding;
        $this->cells[$key] = $cells;
        $this->readBy->note($key, $cells);
        $this->judged[] = $finding;
    }
}
