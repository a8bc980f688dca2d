<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Accounts\Access;
use App\Errands\CarryOut;
use App\Errands\Kind;
use App\Errands\Quota;
use App\Http\Upload;
use App\Models\Build;
use App\Models\Errand;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Str;
use Illuminate\Validation\Rule;
use Illuminate\Validation\ValidationException;
use Symfony\Component\HttpFoundation\StreamedResponse;

/** What takes longer than one waits: asked for, looked at, stopped, tried again, fetched. */
final class ErrandController
{
    /** One person's at one time. */
    private const MOST = 3;

    /** Bytes of a file up to which it is done while one waits. */
    private const SMALL = 1 << 20;

    public function index(Build $build): JsonResponse
    {
        $mine = Errand::mine()->where('build_id', $build->id)->orderByDesc('id')->limit(20)->get();

        return new JsonResponse($mine->map(static fn (Errand $e): array => $e->settle()->told())->all());
    }

    public function store(Request $request, Build $build): JsonResponse
    {
        $kind = Kind::from((string) $request->validate(['kind' => ['required', Rule::enum(Kind::class)->except([Kind::Pictures])]])['kind']);
        $rules = $kind->work()->rules($build);
        $field = $kind->value;
        $given = $request->validate(
            $rules + ($kind->wantsFile() ? [$field => ['required', 'file', 'max:'.Upload::LARGEST]] : []),
            ["{$field}.max" => 'The file is larger than 60 MB; the shell reads any.'],
        );
        Errand::forgetOld();
        abort_if(
            Errand::mine()
                ->whereIn('state', ['waiting', 'running'])
                ->where('beat_at', '>', now()->subMinutes(15))
                ->count() >= self::MOST,
            429,
            'Three things are being worked at for you already. Wait for one, or stop one.',
        );
        if (Access::visitor() !== null) {
            $why = Quota::refusal($build, $kind->wantsFile() ? (int) Upload::of($request, $field)->getSize() : 0);
            abort_if($why !== null, 429, (string) $why);
        }
        $errand = new Errand([
            'key' => (string) Str::uuid(),
            'build_id' => $build->id,
            'asker' => Errand::asker(),
            'kind' => $kind,
            'revision' => $build->revision,
            'state' => 'waiting',
            'given' => array_filter(array_intersect_key($given, $rules), static fn (mixed $v): bool => $v !== null),
            'beat_at' => now(),
        ]);
        $small = false;
        if ($kind->wantsFile()) {
            $file = Upload::of($request, $field);
            $errand->bytes = (int) $file->getSize();
            $errand->name = mb_substr($file->getClientOriginalName(), 0, 150);
            $small = $file->getSize() < self::SMALL;
            Storage::putFileAs('', $file, $errand->brought());
        }
        $errand->save();
        $this->send($errand, $small);
        $errand->refresh();
        if ($errand->state === 'failed' && $small) {
            // It was waited for: said as of any other form.
            throw ValidationException::withMessages([$field => (string) $errand->trouble]);
        }

        return new JsonResponse($errand->told(), 201);
    }

    public function show(Build $build, Errand $errand): JsonResponse
    {
        return new JsonResponse($errand->settle()->told());
    }

    /** Stopped; what is done already stays done. */
    public function destroy(Build $build, Errand $errand): JsonResponse
    {
        Errand::query()
            ->whereKey($errand->id)
            ->whereIn('state', ['waiting', 'running'])
            ->update(['state' => 'stopped']);

        return new JsonResponse($errand->refresh()->told());
    }

    public function again(Build $build, Errand $errand): JsonResponse
    {
        abort_if(
            $errand->isOfVisitor() && $errand->kind->wantsFile(),
            409,
            'The file of it was not kept. Send it again.',
        );
        $claimed = Errand::query()
            ->whereKey($errand->settle()->id)
            ->whereIn('state', ['failed', 'stopped'])
            ->update([
                'state' => 'waiting',
                'trouble' => null,
                'done' => 0,
                'of' => 0,
                'revision' => $build->revision,
                'beat_at' => now(),
            ]);
        abort_if($claimed === 0, 409, 'It is under way, or done.');
        $this->send($errand, false);

        return new JsonResponse($errand->refresh()->told());
    }

    public function file(Build $build, Errand $errand): StreamedResponse
    {
        abort_unless(
            $errand->state === 'done' && Storage::exists($errand->result()),
            404,
            'There is no file of it, or no longer.',
        );

        return Storage::download($errand->result(), (Str::slug($build->name) ?: 'build').'-book.pdf', [
            'Content-Type' => 'application/pdf',
        ]);
    }

    private function send(Errand $errand, bool $atOnce): void
    {
        $atOnce ? CarryOut::dispatchSync($errand->id) : CarryOut::dispatch($errand->id);
    }
}
