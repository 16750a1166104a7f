<?php

declare(strict_types=1);

namespace App\Project;

use App\Store\Journaled;
use Doctrine\ORM\Mapping as ORM;

/** One job of the office: its name, what its coordinates and heights mean, how its numbers are shown and weighted. */
#[ORM\Entity(repositoryClass: ProjectRepository::class)]
#[ORM\Table(name: 'project')]
class Project implements Journaled
{
    public const PLANE = 'plane';

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    private ?int $id = null;

    /** Counts changes; caches of derived facts carry it. */
    #[ORM\Column]
    private int $revision = 0;

    /** @var array<string, string|int> how quantities are shown; never what they are */
    #[ORM\Column(type: 'json')]
    private array $units = ['length' => 'm', 'angle' => 'dms', 'decimals' => 3, 'heights' => 3, 'angles' => 1, 'small' => 1, 'areas' => 1];

    /** @var array<string, mixed> */
    #[ORM\Column(type: 'json')]
    private array $networkSettings = [];

    /** What stands at the head of reports, a line each. */
    #[ORM\Column(length: 400, options: ['default' => ''])]
    private string $letterhead = '';

    /** The geoid heights refer to when they are geoid heights: "installed:NAME" or "grid:ID" of a file of the project. */
    #[ORM\Column(length: 80, options: ['default' => ''])]
    private string $geoid = '';

    public function __construct(
        #[ORM\Column(length: 200)]
        private string $name,
        /** A code such as EPSG:25830, "custom:ID" for a system of the project's own, or "plane" for a flat local system. */
        #[ORM\Column(length: 60)]
        private string $reference,
        /** "ellipsoidal", "geoid" (above the geoid named in geoid) or "local". */
        #[ORM\Column(length: 20)]
        private string $heights,
        #[ORM\Column]
        private \DateTimeImmutable $createdAt,
    ) {
    }

    public function id(): int
    {
        return (int) $this->id;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function reference(): string
    {
        return $this->reference;
    }

    public function isPlane(): bool
    {
        return self::PLANE === $this->reference;
    }

    public function heights(): string
    {
        return $this->heights;
    }

    public function hasGeoidHeights(): bool
    {
        return 'geoid' === $this->heights;
    }

    public function geoid(): string
    {
        return $this->geoid;
    }

    public function revision(): int
    {
        return $this->revision;
    }

    public function createdAt(): \DateTimeImmutable
    {
        return $this->createdAt;
    }

    /** @return array<string, string|int> */
    public function units(): array
    {
        return $this->units;
    }

    /** @return array<string, mixed> */
    public function networkSettings(): array
    {
        return $this->networkSettings;
    }

    /** @param array<string, string|int> $units */
    public function showIn(array $units): void
    {
        $this->units = $units;
    }

    /** @param array<string, mixed> $settings */
    public function weighBy(array $settings): void
    {
        $this->networkSettings = $settings;
    }

    public function letterhead(): string
    {
        return $this->letterhead;
    }

    public function head(string $letterhead): void
    {
        $this->letterhead = $letterhead;
    }

    public function refer(string $reference, string $heights, string $geoid): void
    {
        $this->reference = $reference;
        $this->heights = $heights;
        $this->geoid = $geoid;
    }
}
