<?php

declare(strict_types=1);

namespace App\Builds;

use App\Accounts\Access;
use App\Models\Build;
use App\Models\Snapshot;
use App\Resident\Client;
use DateTimeImmutable;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use Magpie\Core\Advice\Overview;
use Magpie\Core\Format\Withheld;
use Magpie\Core\Inspection\Inspection;
use Throwable;

/**
 * What is judged of a build, kept beside its snapshot. Small builds are judged while somebody waits; large ones are
 * queued for the background, and until then what was judged last is shown and said to be old.
 */
final readonly class Judging
{
    /** What a list shows of a build. */
    private const SUMMARY = ['tally', 'money', 'supply', 'forecast', 'power_forbidden', 'open_faults'];

    /** Seconds after which a judging that reports no progress is taken to have died. */
    private const DEAD = 120;

    /**
     * @param  string|null  $overview  JSON text; null when nothing has been judged of it yet, or it cannot be read
     * @param  array{pointer: string, reason: string}|null  $trouble  why it cannot be read or judged
     * @param  array{state: string, done: int, of: int}|null  $going  while it is judged in the background
     * @param  array{since: int, changed: list<array<string, mixed>>, gone: list<string>}|null  $findings  where the
     *     overview comes without them: those that are told otherwise than at a revision the asker knows
     * @param  bool  $unreadable  the trouble is that the format's rules are broken
     */
    private function __construct(
        public ?string $overview,
        public ?array $trouble = null,
        public ?array $going = null,
        public ?array $findings = null,
        public bool $unreadable = false,
    ) {
    }

    /**
     * What is known of a build now; judged on the spot when that is quick.
     *
     * @param  Document|null  $document  when it is at hand
     * @param  int|null  $seen  the revision whose findings the asker knows
     */
    public static function of(Build $build, ?Document $document = null, ?int $seen = null): self
    {
        $visit = Access::visitor();
        if ($visit !== null) {
            return self::visited($build, $visit->money, $document ?? Document::of($build));
        }
        $held = Snapshot::query()->select('judged', 'day', 'inspection', 'build_id')->find($build->id);
        $inspection = $held !== null && $held->inspection !== '' ? $held->inspection : null;
        if (
            $held !== null &&
            $inspection !== null &&
            $held->judged === $build->revision &&
            $held->day === self::today()->format('Y-m-d')
        ) {
            return new self($inspection);
        }
        $document ??= Document::of($build);
        if ($document->isLarge()) {
            $trouble = $document->trouble();
            if ($trouble !== null) {
                return new self(null, $trouble, unreadable: true);
            }
            self::keep($build, $document, null);

            return new self($inspection, null, self::queue($build));
        }
        $answer = Client::ask($build->id, $build->revision, $document->text(), $seen);
        if ($answer !== null) {
            if ($answer->trouble === null) {
                self::keep($build, $document, $answer->overview, $answer->findings === null);
            }

            return $answer->trouble === null
                ? new self($answer->overview, findings: $answer->findings)
                : new self(null, $answer->trouble, unreadable: true);
        }
        $trouble = $document->trouble();
        if ($trouble !== null) {
            return new self(null, $trouble, unreadable: true);
        }
        try {
            $overview = self::judge($build, $document);
        } catch (Throwable $e) {
            report($e);

            return new self(null, [
                'pointer' => '',
                'reason' => 'it can be read but not judged: '.lcfirst($e->getMessage()),
            ]);
        }
        self::keep($build, $document, $overview);

        return new self($overview);
    }

    /** What somebody outside sees, judged of what they see; kept apart from what is kept for those who are of the build. */
    private static function visited(Build $build, bool $money, Document $document): self
    {
        $trouble = $document->trouble();
        if ($trouble !== null) {
            return new self(null, $trouble, unreadable: true);
        }
        if ($document->isLarge()) {
            // Judged in the background for everybody; told here without what is withheld.
            $held = Snapshot::query()->select('inspection', 'build_id')->find($build->id);
            $text = Withheld::text((string) $held?->inspection, $money, Document::names($build));

            return new self($text === '' ? null : self::outside($text, $money), null, self::queue($build));
        }
        $key = implode('/', ['visited', $build->id, $build->revision, self::today()->format('Y-m-d'), (int) $money]);

        return new self(
            Cache::remember(
                $key,
                now()->addDay(),
                static fn (): string => self::outside(self::judge($build, $document), $money),
            ),
        );
    }

    /** An overview without its sums, where they are withheld: what is not known is not told as nought. */
    private static function outside(string $overview, bool $money): string
    {
        if ($money) {
            return $overview;
        }
        $shown = (array) json_decode($overview, true, 64, JSON_THROW_ON_ERROR);
        // Without prices every part would wait for one.
        $shown['waiting'] = ['buy' => 0] + (array) ($shown['waiting'] ?? []);

        return Document::json(['money' => null] + $shown);
    }

    /** Its members as they go out, with a comma before each. */
    public function json(): string
    {
        return ',"overview":'.
            ($this->overview ?? 'null').
            ',"trouble":'.
            Document::json($this->trouble).
            ',"judging":'.
            Document::json($this->going);
    }

    /**
     * Judges the next build that waits, if one does. For the background process.
     *
     * @return bool whether there was one
     */
    public static function next(): bool
    {
        $build = DB::transaction(static function (): ?Build {
            $row = DB::table('judgings')
                ->where('state', 'queued')
                ->orWhere(
                    static fn ($q) => $q->where('state', 'running')->where('at', '<', now()->subSeconds(self::DEAD)),
                )
                ->orderBy('at')
                ->lock('for update skip locked')
                ->first();
            if ($row === null) {
                return null;
            }
            DB::table('judgings')
                ->where('build_id', $row->build_id)
                ->update(['state' => 'running', 'done' => 0, 'at' => self::now()]);

            return Build::query()->whereKey($row->build_id)->first();
        });
        if ($build === null) {
            return false;
        }
        $trouble = null;
        try {
            $document = Document::of($build);
            $trouble = $document->trouble();
            if ($trouble === null) {
                self::keep($build, $document, self::judge($build, $document, self::reporting($build)));
            }
        } catch (Throwable $e) {
            report($e);
            $trouble = ['pointer' => '', 'reason' => $e->getMessage()];
        }
        // Changed meanwhile: once more; else it is done.
        $row = DB::table('judgings')->where('build_id', $build->id);
        $now = (int) DB::table('builds')->where('id', $build->id)->value('revision');
        match (true) {
            $trouble !== null => $row->update([
                'state' => 'failed',
                'trouble' => mb_substr(trim("{$trouble['pointer']}: {$trouble['reason']}", ': '), 0, 400),
            ]),
            $now !== $build->revision => $row->update(['state' => 'queued', 'revision' => $now]),
            default => $row->delete(),
        };

        return true;
    }

    /**
     * Puts a build in the background's queue, or says how far it is.
     *
     * @return array{state: string, done: int, of: int}
     */
    public static function queue(Build $build): array
    {
        $row = DB::table('judgings')->where('build_id', $build->id)->first();
        if ($row === null || $row->state === 'failed') {
            DB::table('judgings')->upsert(
                [
                    [
                        'build_id' => $build->id,
                        'revision' => $build->revision,
                        'state' => 'queued',
                        'done' => 0,
                        'of' => 0,
                        'trouble' => null,
                        'at' => self::now(),
                    ],
                ],
                ['build_id'],
            );

            return ['state' => 'queued', 'done' => 0, 'of' => 0];
        }

        return ['state' => (string) $row->state, 'done' => (int) $row->done, 'of' => (int) $row->of];
    }

    /**
     * @param  (callable(int, int): void)|null  $about
     * @return string the overview as JSON text
     */
    private static function judge(Build $build, Document $document, ?callable $about = null): string
    {
        $inspection = $document->inspection($about);
        self::logTroubles($build, $inspection);

        return Document::json((new Overview($inspection, self::today()))->toArray());
    }

    /**
     * Keeps what is known, once nothing is locked any more. Whoever cannot write it just now has lost nothing but time:
     * it is worked out again.
     *
     * @param  bool  $whole  the overview has all findings, so that it can be shown again as it is
     */
    private static function keep(Build $build, Document $document, ?string $overview, bool $whole = true): void
    {
        $row = [
            'build_id' => $build->id,
            'revision' => $build->revision,
            'document' => $document->text(),
        ];
        $judged =
            $overview === null
                ? []
                : [
                    'day' => self::today()->format('Y-m-d'),
                    'inspection' => $whole ? $overview : '',
                    'judged' => $build->revision,
                    'summary' => Document::json(
                        array_intersect_key(
                            (array) json_decode($overview, true, 64, JSON_THROW_ON_ERROR),
                            array_flip(self::SUMMARY),
                        ),
                    ),
                ];
        DB::afterCommit(static function () use ($row, $judged): void {
            try {
                Snapshot::query()->upsert(
                    [$row + $judged + ['day' => '1970-01-01', 'inspection' => '', 'judged' => 0, 'summary' => null]],
                    ['build_id'],
                    array_keys($row + $judged),
                );
            } catch (QueryException $e) {
                report($e);
            }
        });
    }

    private static function logTroubles(Build $build, Inspection $inspection): void
    {
        foreach ($inspection->findings as $finding) {
            if ($finding->trouble !== null) {
                Log::error("Check {$finding->key()} of build {$build->id} could not be judged: {$finding->trouble}");
            }
        }
    }

    /**
     * @return callable(int, int): void tells the table how far it is, twice a second
     */
    private static function reporting(Build $build): callable
    {
        $last = 0.0;

        return static function (int $done, int $of) use ($build, &$last): void {
            if (microtime(true) - $last > 0.5) {
                $last = microtime(true);
                DB::table('judgings')
                    ->where('build_id', $build->id)
                    ->update(['done' => $done, 'of' => $of, 'at' => self::now()]);
            }
        };
    }

    private static function now(): string
    {
        return now()->format('Y-m-d H:i:s.v');
    }

    private static function today(): DateTimeImmutable
    {
        return new DateTimeImmutable;
    }
}
