<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

/** What a check says, worst first. */
enum Verdict: string
{
    /** Can hurt someone or start a fire. */
    case Danger = 'danger';
    /** Will not work, or will break. */
    case Fails = 'fails';
    /** Works with less than the recommended margin. */
    case Tight = 'tight';
    /** An input is missing, or rests on less than the check asks. */
    case Unproven = 'unproven';
    case Holds = 'holds';

    public function label(): string
    {
        return ucfirst($this->value);
    }

    /** 0 is worst. */
    public function rank(): int
    {
        return match ($this) {
            self::Danger => 0,
            self::Fails => 1,
            self::Tight => 2,
            self::Unproven => 3,
            self::Holds => 4,
        };
    }

    public function passes(): bool
    {
        return $this === self::Holds || $this === self::Tight;
    }

    public function isSound(): bool
    {
        return $this === self::Holds;
    }

    public static function worst(self $first, self ...$others): self
    {
        foreach ($others as $other) {
            $first = $other->rank() < $first->rank() ? $other : $first;
        }

        return $first;
    }
}
