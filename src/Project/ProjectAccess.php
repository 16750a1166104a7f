<?php

declare(strict_types=1);

namespace App\Project;

use App\Account\ProjectVoter;
use App\Account\User;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** The project of a request, if the signed-in member may do what is asked. A project one is no member of is not found. */
final class ProjectAccess
{
    public function __construct(private readonly EntityManagerInterface $entities, private readonly Security $security)
    {
    }

    public function read(int $id): Project
    {
        $project = $this->entities->find(Project::class, $id);
        if (null === $project || !$this->security->isGranted(ProjectVoter::READ, $project)) {
            throw new NotFoundHttpException('There is no such project, or you are not a member of it.');
        }

        return $project;
    }

    public function change(int $id): Project
    {
        $project = $this->read($id);
        if (!$this->security->isGranted(ProjectVoter::CHANGE, $project)) {
            throw new AccessDeniedHttpException('Reviewers read and comment; an editor or owner makes changes.');
        }

        return $project;
    }

    public function user(): User
    {
        $user = $this->security->getUser();
        \assert($user instanceof User);

        return $user;
    }
}
