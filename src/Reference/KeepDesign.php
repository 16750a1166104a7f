<?php

declare(strict_types=1);

namespace App\Reference;

use App\Ledger\Desk;
use App\Project\Project;
use App\Project\ProjectVoter;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;

/** Keeps a design under a name; whoever may read may design, keeping needs the right to change. */
final class KeepDesign
{
    public function __construct(
        private readonly ReferenceOperations $operations,
        private readonly Desk $desk,
        private readonly Security $security,
    ) {
    }

    public function carryOut(Project $project, string $name, Design $d): int
    {
        if (!$this->security->isGranted(ProjectVoter::CHANGE, $project)) {
            throw new AccessDeniedHttpException('Reviewers read and comment; an editor or owner makes changes.');
        }
        $words = 'Designed the low-distortion system %s: %s, scale %.6f, %.1f to %.1f ppm';
        $title = \sprintf($words, $name, $d->method, $d->scale, $d->ppm['min'], $d->ppm['max']);
        $keep = $this->operations->keepSystem($name, $d->system, $title);
        $this->desk->carryOut($project, $keep);

        return $keep->id();
    }
}
