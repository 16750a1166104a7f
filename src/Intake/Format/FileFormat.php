<?php

declare(strict_types=1);

namespace App\Intake\Format;

use App\Survey\SurveyFile;
use Mensura\Fault\UnusableInput;
use Symfony\Component\DependencyInjection\Attribute\AutoconfigureTag;

/** A kind of file Intake can read. Files are given by their path, so that none has to be held whole. */
#[AutoconfigureTag('app.file_format')]
interface FileFormat
{
    /** How sure it is that a file is one of its own, from 0 to 1. */
    public function recognises(string $path, string $name): float;

    /** The kind of contents, as the project's list of files keeps it. */
    public function kindOf(string $path): string;

    /** @throws UnusableInput when it cannot be read at all */
    public function read(string $path, SurveyFile $file): Reading;

    /**
     * How the file is to be understood from now on, as answered in the preview.
     *
     * @param array<mixed> $answers
     *
     * @return array{string, array<string, mixed>} kind of contents, and what is kept with the file
     *
     * @throws UnusableInput
     */
    public function understand(string $path, array $answers): array;

    /** What makes files alike, so that how one was understood fits the next; empty when nothing does. */
    public function shape(string $path): string;
}
