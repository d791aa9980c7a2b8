<?php

namespace App\Demo;

use App\Dialects\Dialects;
use App\Intakes\Beginning;
use App\Intakes\Confirming;
use App\Intakes\Receiving;
use App\Jobs\ReadIntake;
use App\Models\Client;
use App\Models\Intake;
use App\Models\IntakeStatus;
use Symfony\Component\Yaml\Yaml;

/**
 * A platform that nobody ships, as a client's people would bring it: its document, a map of its exports, and an account
 * that comes from them, with what is wrong in them. All of it stands in a folder.
 */
final readonly class SheetPlatform
{
    public function __construct(private Dialects $dialects) {}

    /**
     * @param array{number: string, name: string} $account
     * @param array<string, bool> $whole level → is all of it in the sheets?
     */
    public function bring(Client $client, int $user, string $folder, array $account, array $whole): void
    {
        $document = Yaml::parseFile("{$folder}/platform.yaml");
        $map = json_decode((string) file_get_contents("{$folder}/map.json"), true, flags: JSON_THROW_ON_ERROR);
        $this->dialects->save($client, $document, 0, $user);
        $intake = $client
            ->intakes()
            ->create([
                'user_id' => $user,
                'dialect' => $document['id'],
                'status' => IntakeStatus::Open,
            ] + $account)
            ->refresh();
        foreach (glob("{$folder}/*.csv") ?: [] as $path) {
            $content = (string) file_get_contents($path);
            $file = $intake->files()->create(['name' => basename($path), 'bytes' => strlen($content)]);
            (new Receiving($intake, $file->refresh()))->part(0, $content);
        }
        $intake = Intake::query()->findOrFail($intake->id);
        (new Confirming($intake, $this->dialects->of($client->id, $document['id'])))->read(
            ['revision' => $intake->revision] + $map,
            array_map(static fn (array $t): array => ['use' => true] + $t, $map['tables']),
        );
        $revision = $intake->revision + 1;
        (new ReadIntake($intake->id, $revision))->handle($this->dialects);
        (new Beginning($intake->refresh()))->begin($revision, $whole, $user);
    }
}
