<?php

declare(strict_types=1);

namespace App\Result;

use App\Project\Project;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Versions and words of whatever results rest on. */
final class ContentVersions
{
    /** @var array<string, Content> */
    private array $kinds = [];

    /** @param iterable<Content> $kinds */
    public function __construct(#[AutowireIterator('app.content')] iterable $kinds)
    {
        foreach ($kinds as $kind) {
            $this->kinds[$kind::kind()] = $kind;
        }
    }

    /** @param string $what "points", or with a number "surface:3" */
    public function of(Project $project, string $what): string
    {
        [$kind, $which] = explode(':', $what, 2) + [1 => ''];

        return $this->kind($kind)->version($project, $which);
    }

    public function words(string $what): string
    {
        return $this->kind(explode(':', $what)[0])->words();
    }

    /** @return list<string> */
    public function origin(Project $project, string $what): array
    {
        return $this->kind(explode(':', $what)[0])->origin($project);
    }

    /** A short hash of anything that can be written as JSON. */
    public static function hash(mixed $contents): string
    {
        return substr(hash('sha256', json_encode($contents, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)), 0, 32);
    }

    private function kind(string $kind): Content
    {
        return $this->kinds[$kind] ?? throw new \LogicException("No content is called $kind.");
    }
}
