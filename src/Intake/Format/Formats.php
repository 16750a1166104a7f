<?php

declare(strict_types=1);

namespace App\Intake\Format;

use App\Store\FileStore;
use App\Survey\SurveyFile;
use Mensura\Fault\UnusableInput;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Finds the format of a file. */
final class Formats
{
    public const UNKNOWN = 'unknown';

    /** @param iterable<FileFormat> $formats */
    public function __construct(
        private readonly FileStore $store,
        #[AutowireIterator('app.file_format')] private readonly iterable $formats,
    ) {
    }

    public function kindOf(string $hash, string $name): string
    {
        try {
            return $this->of($hash, $name)->kindOf($this->store->localPath($hash));
        } catch (UnusableInput) {
            return self::UNKNOWN; // the preview says why
        }
    }

    /** The system a file says it is in, "EPSG:n"; null where it says none. */
    public function frameOf(string $hash, string $name): ?string
    {
        try {
            $format = $this->of($hash, $name);
        } catch (UnusableInput) {
            return null;
        }

        return $format instanceof SaysFrame ? $format->frame($this->store->localPath($hash)) : null;
    }

    /** @throws UnusableInput */
    public function read(SurveyFile $file): Reading
    {
        return $this->of($file->sha256(), $file->name())->read($this->store->localPath($file->sha256()), $file);
    }

    /**
     * @param array<mixed> $answers
     *
     * @return array{string, array<string, mixed>}
     *
     * @throws UnusableInput
     */
    public function understand(SurveyFile $file, array $answers): array
    {
        return $this->of($file->sha256(), $file->name())->understand($this->store->localPath($file->sha256()), $answers);
    }

    /** What makes files alike; empty when nothing does, or it cannot be read. */
    public function shape(string $hash, string $name): string
    {
        try {
            return $this->of($hash, $name)->shape($this->store->localPath($hash));
        } catch (UnusableInput) {
            return '';
        }
    }

    /** @throws UnusableInput */
    private function of(string $hash, string $name): FileFormat
    {
        $best = null;
        $surest = 0.0;
        foreach ($this->formats as $format) {
            $sure = $format->recognises($this->store->localPath($hash), $name);
            if ($sure > $surest) {
                [$best, $surest] = [$format, $sure];
            }
        }

        return $best ?? throw new UnusableInput('', 'is no kind of file that is read here; docs/formats.md lists them');
    }
}
