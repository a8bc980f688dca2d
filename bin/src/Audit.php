<?php

declare(strict_types=1);

namespace Magpie\Bin;

/** Known holes in the packages this is made of, as their registries tell. One that cannot be asked is said, and is no failure. */
final readonly class Audit
{
    public function __construct(private Project $project, private Terminal $terminal)
    {
    }

    public function run(): int
    {
        $found = 0;
        foreach (
            [
                'PHP packages' => 'composer audit --locked --no-interaction --format=json',
                'Front-end packages' => 'npm audit --omit=dev --json',
            ] as $what => $command
        ) {
            $this->terminal->begin("Known holes: {$what}");
            [, $output] = Shell::run($command, $this->project->root, ['COMPOSER_ALLOW_SUPERUSER' => '1']);
            $holes = self::holes($output);
            $this->terminal->end(
                $holes === null
                    ? 'the registry cannot be asked'
                    : ($holes === []
                        ? 'none known'
                        : implode('; ', $holes)),
            );
            $found += count($holes ?? []);
        }

        return $found === 0 ? 0 : 1;
    }

    /**
     * @return list<string>|null what is known; null when nobody answered
     */
    public static function holes(string $output): ?array
    {
        $from = strpos($output, '{');
        $to = strrpos($output, '}');
        $data = $from === false || $to === false ? null : json_decode(substr($output, $from, $to - $from + 1), true);
        if (
            ! is_array($data) ||
            isset($data['error']) ||
            (! isset($data['advisories']) && ! isset($data['vulnerabilities']))
        ) {
            return null;
        }
        $holes = [];
        $listed = static fn (mixed $of): array => is_array($of) ? $of : [];
        foreach ($listed($data['advisories'] ?? null) as $package => $advisories) {
            foreach ($listed($advisories) as $advisory) {
                $title = $listed($advisory)['title'] ?? '';
                $holes[] = "{$package}: ".(is_string($title) ? $title : '');
            }
        }
        foreach ($listed($data['vulnerabilities'] ?? null) as $package => $vulnerability) {
            $severity = $listed($vulnerability)['severity'] ?? '';
            // What only makes a page of one's own slow is not worth holding a release for.
            if ($severity === 'high' || $severity === 'critical') {
                $holes[] = "{$package}: {$severity}";
            }
        }

        return $holes;
    }
}
