<?php

declare(strict_types=1);

namespace App\Export;

use App\Project\Project;
use Mensura\Fault\UnusableInput;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** A kind of file that is handed over: written to a path, then read back from it and compared with the project. */
#[AutoconfigureTag('app.export_kind')]
interface ExportKind
{
    /** In addresses and slots: "csv". */
    public static function key(): string;

    public function about(): ExportAbout;

    /**
     * What the file shows. A stale slot is not handed over.
     *
     * @param list<int> $chosen of {@see OffersChoice}
     *
     * @return array{list<string>, list<string>} contents and slots, as a result's inputs name them
     */
    public function restsOn(array $chosen): array;

    /**
     * @param list<int> $chosen
     *
     * @return list<string> what the file does not hold, in words
     *
     * @throws UnusableInput
     */
    public function write(Project $project, array $chosen, string $path): array;

    /**
     * Reads the file back and compares it with what the project holds.
     *
     * @param list<int> $chosen
     *
     * @return list<Check>
     */
    public function check(Project $project, array $chosen, string $path): array;
}
