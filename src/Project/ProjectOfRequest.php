<?php

declare(strict_types=1);

namespace App\Project;

use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Controller\ValueResolverInterface;
use Symfony\Component\HttpKernel\ControllerMetadata\ArgumentMetadata;
use Symfony\Component\HttpKernel\Event\ControllerArgumentsEvent;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;

/**
 * Gives a controller the project of its address, if the signed-in member has the right its parameter states. A project
 * one is no member of is not found. An address of a project whose controller states no right is not answered at all.
 */
#[AsTaggedItem(priority: 200)]
final class ProjectOfRequest implements ValueResolverInterface
{
    public function __construct(private readonly ProjectRepository $projects, private readonly Security $security)
    {
    }

    /** @return list<Project> */
    public function resolve(Request $request, ArgumentMetadata $argument): iterable
    {
        $right = $argument->getAttributesOfType(ProjectRight::class, ArgumentMetadata::IS_INSTANCEOF)[0] ?? null;
        if (!$right instanceof ProjectRight) {
            return [];
        }
        $project = $this->projects->find($request->attributes->getInt('id'));
        if (null === $project || !$this->security->isGranted(ProjectVoter::READ, $project)) {
            throw new NoSuchProject();
        }
        if (!$this->security->isGranted($right->right, $project)) {
            throw new AccessDeniedHttpException($right->refusal);
        }

        return [$project];
    }

    #[AsEventListener]
    public function guard(ControllerArgumentsEvent $event): void
    {
        $guarded = [] !== array_filter($event->getArguments(), static fn (mixed $a): bool => $a instanceof Project);
        if (str_starts_with($event->getRequest()->getPathInfo(), '/api/projects/') && !$guarded) {
            throw new \LogicException('A controller under /api/projects/{id} takes the project with the right it needs.');
        }
    }
}
