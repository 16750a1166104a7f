<?php

declare(strict_types=1);

namespace App\Export;

use Mensura\Fault\UnusableInput;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;

/** Every kind of file that can be handed over. */
final class ExportKinds
{
    /** @var array<string, ExportKind> */
    private array $kinds = [];

    /** @param iterable<ExportKind> $kinds */
    public function __construct(#[AutowireIterator('app.export_kind')] iterable $kinds)
    {
        foreach ($kinds as $kind) {
            $this->kinds[$kind::key()] = $kind;
            if ($kind instanceof Report) {
                $this->kinds[preg_replace('/-pdf$/', '', $kind::key()).HtmlTwin::ENDING] = new HtmlTwin($kind);
            }
        }
    }

    /** @return array<string, ExportAbout> by key, in their places on the page */
    public function all(): array
    {
        $all = array_map(static fn (ExportKind $kind): ExportAbout => $kind->about(), $this->kinds);
        uasort($all, static fn (ExportAbout $a, ExportAbout $b): int => $a->place <=> $b->place);

        return $all;
    }

    /** @throws UnusableInput */
    public function named(string $key): ExportKind
    {
        return $this->kinds[$key] ?? throw new UnusableInput('/kind', 'is one of '.implode(', ', array_keys($this->kinds)));
    }
}
