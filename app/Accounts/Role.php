<?php

declare(strict_types=1);

namespace App\Accounts;

/** What somebody may do in a workshop, or with one build. Each may what those before may. */
enum Role: string
{
    /** By the link of one build: sees it, but not who works on it, nor what else the workshop has. */
    case Visitor = 'visitor';
    case Reader = 'reader';
    case Builder = 'builder';
    case Owner = 'owner';

    public function mayWhat(self $least): bool
    {
        $ranks = array_flip(array_column(self::cases(), 'value'));

        return $ranks[$this->value] >= $ranks[$least->value];
    }

    /**
     * @return list<string> those that are given to people
     */
    public static function words(): array
    {
        return array_values(array_diff(array_column(self::cases(), 'value'), [self::Visitor->value]));
    }
}
