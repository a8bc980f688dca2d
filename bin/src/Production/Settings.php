<?php

declare(strict_types=1);

namespace Magpie\Bin\Production;

/**
 * The settings of a hosted instance: what the install decides, written anew each time, and what whoever keeps the machine says in a
 * file of their own beside it, which the install only reads.
 */
final readonly class Settings
{
    public const OWN = 'own.env';

    /** Of the install, whatever stands in the own file. */
    private const DECIDED = [
        'APP_KEY', 'APP_URL', 'MAGPIE_HOSTS', 'SANCTUM_STATEFUL_DOMAINS', 'SESSION_SECURE_COOKIE', 'MAGPIE_SESSIONS', 'MAGPIE_CACHE',
        'MAGPIE_INSPECTOR', 'MAGPIE_LOG', 'LOG_CHANNEL',
    ];

    /** The way to the database: all of it the keeper's where DB_HOST is in the own file, else none of it. */
    private const DATABASE = ['DB_HOST', 'DB_PORT', 'DB_DATABASE', 'DB_USERNAME', 'DB_PASSWORD'];

    private const HEAD = "# Your own settings: letters (MAIL_…), stores (REDIS_…, CACHE_STORE, SESSION_DRIVER, QUEUE_CONNECTION), DB_HOST of a database elsewhere.\n".
        "# bin/magpie install --production reads this file and never writes it again; run it after a change here.\n";

    /**
     * @param  array<string, string>  $own
     */
    private function __construct(public array $own)
    {
    }

    /** As whoever keeps the machine has them; at first what was added by hand to the settings of an older install. */
    public static function of(string $home): self
    {
        $file = "{$home}/".self::OWN;
        if (! is_file($file)) {
            $held = self::lines((string) @file_get_contents("{$home}/.env"));
            $database = isset($held['DB_HOST']) ? array_flip(self::DATABASE) : [];
            $own = array_filter(
                $held,
                static fn (string $name): bool => (preg_match('/^(MAIL|REDIS|CACHE|SESSION|QUEUE)_/', $name) === 1 ||
                    isset($database[$name])) && ! in_array($name, self::DECIDED, true),
                ARRAY_FILTER_USE_KEY,
            );
            file_put_contents($file, self::HEAD.self::text($own));
        }
        chmod($file, 0600);

        return new self(self::lines((string) file_get_contents($file)));
    }

    /** Whether the database is on another machine. */
    public function isDatabaseElsewhere(): bool
    {
        return ($this->own['DB_HOST'] ?? '') !== '';
    }

    /**
     * @return list<string> names in the own file that the install decides
     */
    public function refused(): array
    {
        $none = $this->isDatabaseElsewhere() ? ['DB_SOCKET'] : [...self::DATABASE, 'DB_SOCKET'];

        return array_values(array_intersect(array_keys($this->own), [...self::DECIDED, ...$none]));
    }

    /**
     * @param  array<string, string>  $decided
     * @return string the text of the settings file
     */
    public function with(array $decided): string
    {
        $own = array_diff_key($this->own, array_flip($this->refused()));
        if ($this->isDatabaseElsewhere()) {
            $decided = array_diff_key($decided, array_flip([...self::DATABASE, 'DB_SOCKET']));
        }

        return self::text($own + $decided);
    }

    /**
     * @return array<string, string>
     */
    public static function lines(string $text): array
    {
        preg_match_all('/^([A-Z][A-Z0-9_]*)="?([^"\n]*?)"?\s*$/m', $text, $found);

        return array_combine($found[1], $found[2]);
    }

    /**
     * @param  array<string, string>  $settings
     */
    public static function text(array $settings): string
    {
        return implode(
            '',
            array_map(static fn (string $n, string $v): string => "{$n}=\"{$v}\"\n", array_keys($settings), $settings),
        );
    }
}
