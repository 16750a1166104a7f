<?php

declare(strict_types=1);

namespace App\Account;

use App\Account\Request\MemberRequest;
use App\Account\View\MemberView;
use App\Project\ProjectAccess;
use Doctrine\ORM\EntityManagerInterface;
use Mensura\Fault\UnusableInput;
use Symfony\Bundle\SecurityBundle\Security;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\AccessDeniedHttpException;
use Symfony\Component\Routing\Attribute\Route;

/** Who may do what in a project. Everyone in it sees this, owners change it. */
#[Route('/api/projects/{id<\d+>}/members')]
final class MemberController
{
    public function __construct(
        private readonly ProjectAccess $access,
        private readonly EntityManagerInterface $entities,
        private readonly Security $security,
    ) {
    }

    #[Route('', methods: 'GET')]
    public function list(int $id): JsonResponse
    {
        $members = $this->entities->getRepository(Membership::class)->findBy(['project' => $this->access->read($id)]);

        return new JsonResponse(array_map(static fn (Membership $m): MemberView => new MemberView($m->user()->username(), $m->user()->name(), $m->role()->value), $members));
    }

    #[Route('', methods: 'PUT')]
    public function change(int $id, #[MapRequestPayload] MemberRequest $request): JsonResponse
    {
        $project = $this->access->read($id);
        if (!$this->security->isGranted(ProjectVoter::MANAGE, $project)) {
            throw new AccessDeniedHttpException('Only an owner of the project changes who may do what.');
        }
        $user = $this->entities->getRepository(User::class)->findOneBy(['username' => $request->username]) ?? throw new UnusableInput('/username', \sprintf('there is no account "%s"; make it with bin/console mensura:user', $request->username));
        $present = $this->entities->find(Membership::class, ['user' => $user, 'project' => $project]);
        $role = Role::tryFrom($request->role);
        $owners = $this->entities->getRepository(Membership::class)->count(['project' => $project, 'role' => Role::Owner]);
        if (null !== $present && Role::Owner === $present->role() && Role::Owner !== $role && 1 === $owners) {
            throw new UnusableInput('/role', 'a project keeps at least one owner; make someone else owner first');
        }
        if (null !== $present) {
            $this->entities->remove($present);
            $this->entities->flush();
        }
        if (null !== $role) {
            $this->entities->persist(new Membership($user, $project, $role));
        }
        $this->entities->flush();

        return $this->list($id);
    }
}
