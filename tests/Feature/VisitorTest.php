<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Accounts\Secret;
use App\Errands\Quota;
use App\Models\Build;
use App\Models\Errand;
use App\Models\ShareLink;
use Illuminate\Http\UploadedFile;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Route as Router;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use ZipArchive;

/** What somebody sees by a link: the machine, nobody's name, and prices only where the link shows them. */
final class VisitorTest extends FeatureTestCase
{
    private function visit(Build $build, bool $money): ShareLink
    {
        $this->flushSession();
        $this->app->make('auth')->forgetGuards();
        $link = ShareLink::query()->create([
            'build_id' => $build->id,
            'made_by' => $this->isla()->id,
            'token' => Secret::hash(Secret::fresh()),
            'label' => 'Club',
            'money' => $money,
            'expires_at' => now()->addDay(),
        ]);
        $this->withSession(['visitor' => $link->id]);

        return $link;
    }

    /**
     * Every address of a build that can be read, with names its parameters really have.
     *
     * @return list<string>
     */
    private function addresses(Build $build): array
    {
        $machine = $this->held($build);
        $ref = static fn (string $section): string => $machine[$section][0]['ref'] ?? 'none';
        $key = (string) $this->getJson("/api/builds/{$build->id}/overview")->json('overview.findings.0.key');
        $values = [
            '{build}' => (string) $build->id,
            '{need}' => $ref('needs'),
            '{part}' => $ref('parts'),
            '{axis}' => $ref('axes'),
            '{scenario}' => $ref('scenarios'),
            '{key}' => $key,
            '{step}' => $ref('steps'),
            '{fault}' => $ref('faults'),
            '{other}' => (string) $build->id,
            '{view}' => 'plan',
            '{place}' => $ref('places'),
            '{format}' => 'svg',
            '{what}' => 'note',
            '{kind}' => 'tram',
            '{name}' => 'none.jpg',
            '{errand}' => '00000000-0000-4000-8000-000000000000',
        ];
        $addresses = ['/api/builds'];
        /** @var Route $route */
        foreach (Router::getRoutes()->getRoutes() as $route) {
            if (
                str_starts_with($route->uri(), 'api/builds/{build}') &&
                $route->methods()[0] === 'GET' &&
                in_array('may:visitor', $route->gatherMiddleware(), true)
            ) {
                $addresses[] = '/'.strtr($route->uri(), $values);
            }
        }

        return $addresses;
    }

    public function test_no_address_tells_a_visitor_a_name_or_without_leave_a_price(): void
    {
        foreach ([$this->dunlin(), Build::query()->where('slug', 'plover')->firstOrFail()] as $build) {
            $this->as($this->isla());
            $addresses = $this->addresses($build);
            self::assertGreaterThan(55, count($addresses));
            $whole = $this->getJson("/api/builds/{$build->id}")->json();
            self::assertStringContainsString('Tam Corrie', (string) json_encode($whole));
            $this->visit($build, false);
            $answered = 0;
            foreach ($addresses as $address) {
                $answer = $this->get($address);
                $text = $answer->baseResponse instanceof \Symfony\Component\HttpFoundation\StreamedResponse
                    ? $answer->streamedContent()
                    : ($answer->baseResponse instanceof \Symfony\Component\HttpFoundation\BinaryFileResponse
                        ? self::unpacked($answer->baseResponse->getFile()->getPathname())
                        : (string) $answer->getContent());
                preg_match('/.{0,60}(Isla Brae|Tam Corrie|Morag)/u', $text, $named);
                self::assertSame([], $named, $address);
                // What the power of a run costs where it stands is said: it is nobody's spending.
                $text = (string) preg_replace('/[A-Z]{3}\s[\d.,]+(?=; \d+ runs)|(?<=a year cost )[A-Z]{3}\s[\d.,]+|E25.*?\}/u', '', $text);
                preg_match('/.{0,60}(?:(GBP|EUR|£|€)\s?[1-9]|"(price|paid|cost|budget)":"?[1-9])/u', $text, $priced);
                self::assertSame([], $priced, $address);
                self::assertNotSame(500, $answer->getStatusCode(), $address);
                $answered += (int) ($answer->getStatusCode() === 200);
            }
            self::assertGreaterThan(35, $answered);
            foreach (['money', 'order', 'order/frontier', 'true-cost', 'routes', 'claims'] as $priced) {
                $this->getJson("/api/builds/{$build->id}/{$priced}")->assertForbidden();
            }
            $seen = $this->getJson("/api/builds/{$build->id}")->assertOk()->assertJsonPath('overview.money', null);
            self::assertShape('Build', $seen);
            // The machine itself is judged as it is for those who build it.
            self::assertSame(
                $whole['overview']['tally']['danger'],
                $seen->json('overview.tally.danger'),
            );
            // Nothing withheld is kept as what the build is.
            $this->as($this->isla());
            self::assertSame($whole['document'], $this->getJson("/api/builds/{$build->id}")->json('document'));
        }
    }

    private static function unpacked(string $file): string
    {
        $zip = new ZipArchive;
        $zip->open($file);
        $text = '';
        for ($i = 0; $i < $zip->numFiles; $i++) {
            $text .= $zip->getFromIndex($i);
        }

        return $text;
    }

    public function test_prices_are_shown_where_whoever_shares_says_so(): void
    {
        $build = $this->dunlin();
        $this->visit($build, true);
        $money = $this->getJson("/api/builds/{$build->id}/money")->assertOk();
        self::assertGreaterThan(100, (float) $money->json('planned'));
        $text = (string) $this->getJson("/api/builds/{$build->id}/file")->getContent();
        self::assertStringContainsString('"price"', $text);
        self::assertStringNotContainsString('Tam Corrie', $text);
    }

    public function test_a_book_made_for_a_visitor_names_nobody(): void
    {
        config(['queue.default' => 'database']);
        $build = Build::query()->where('slug', 'plover')->firstOrFail();
        $this->visit($build, false);
        $at = "/api/builds/{$build->id}/errands";
        $this->postJson($at, ['kind' => 'book'])->assertCreated();
        // The worker knows nobody who asks: what it may show is of the errand itself.
        $this->flushSession();
        Artisan::call('queue:work', ['--once' => true, '--quiet' => true]);
        $errand = Errand::query()->latest('id')->firstOrFail();
        self::assertSame('done', $errand->state, (string) $errand->trouble);
        $file = (string) tempnam(sys_get_temp_dir(), 'book');
        file_put_contents($file, (string) Storage::get($errand->result()));
        self::assertGreaterThan(0, $errand->bytes);
        $text = self::words($file);
        unlink($file);
        self::assertStringContainsString('Plover', $text);
        self::assertStringNotContainsString('Corrie', $text);
        self::assertStringNotContainsString('GBP', $text);
    }

    /** The text of a PDF as its own streams have it. */
    private static function words(string $file): string
    {
        $text = '';
        preg_match_all('/stream\r?\n(.*?)\r?\nendstream/s', (string) file_get_contents($file), $streams);
        foreach ($streams[1] as $stream) {
            $plain = (string) @gzuncompress($stream);
            preg_match_all('/\((.*?)(?<!\\\\)\)/s', $plain, $pieces);
            $text .= implode('', array_map(
                static fn (string $p): string => str_contains($p, "\0") ? mb_convert_encoding(stripcslashes($p), 'UTF-8', 'UTF-16BE') : $p,
                $pieces[1],
            ));
        }

        return $text;
    }

    public function test_what_visitors_ask_for_counts_and_what_failed_leaves_nothing(): void
    {
        $build = $this->dunlin();
        $link = $this->visit($build, false);
        $at = "/api/builds/{$build->id}/errands";
        $ask = fn () => $this->post($at, ['kind' => 'mesh', 'mesh' => UploadedFile::fake()->createWithContent('x.stl', 'no mesh')]);
        $ask()->assertStatus(422);
        $failed = Errand::query()->where('asker', "link:{$link->id}")->firstOrFail();
        self::assertSame('failed', $failed->state);
        self::assertFalse(Storage::exists($failed->brought()), 'Of what failed nothing is kept.');
        self::assertSame(7, $failed->bytes);
        $this->postJson("{$at}/{$failed->key}/again")->assertStatus(409);
        $failed->newQuery()->whereKey($failed->id)->update(['bytes' => Quota::BYTES - 3]);
        self::assertStringContainsString('200 MB', (string) $ask()->assertStatus(429)->json('detail'));
        $failed->newQuery()->whereKey($failed->id)->update(['bytes' => 0, 'seconds' => Quota::SECONDS + 1]);
        self::assertStringContainsString('15 minutes', (string) $ask()->assertStatus(429)->json('detail'));
        $failed->newQuery()->whereKey($failed->id)->update(['seconds' => 0]);
        for ($i = 1; $i < Quota::NUMBER; $i++) {
            Errand::query()->create($failed->only(['build_id', 'asker', 'kind', 'revision', 'state']) + ['key' => (string) Str::uuid(), 'beat_at' => now()]);
        }
        self::assertStringContainsString((string) Quota::NUMBER, (string) $ask()->assertStatus(429)->json('detail'));
        // Whoever builds it is not held back by what visitors did.
        $this->as($this->isla());
        $ask()->assertStatus(422);
    }
}
