<?php

declare(strict_types=1);

namespace App\Network\Level;

use App\Project\Project;
use Doctrine\Bundle\DoctrineBundle\Repository\ServiceEntityRepository;
use Doctrine\Persistence\ManagerRegistry;

/** @extends ServiceEntityRepository<LevelBookSettings> */
final class LevelBookSettingsRepository extends ServiceEntityRepository
{
    public function __construct(ManagerRegistry $registry)
    {
        parent::__construct($registry, LevelBookSettings::class);
    }

    /** Those of the project, or what stands until someone changes it. */
    public function of(Project $project): LevelBookSettings
    {
        return $this->findOneBy(['project' => $project->id()]) ?? new LevelBookSettings($project);
    }

    public function keep(LevelBookSettings $settings): void
    {
        $this->getEntityManager()->persist($settings);
    }
}
