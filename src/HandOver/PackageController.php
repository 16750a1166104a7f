<?php

declare(strict_types=1);

namespace App\HandOver;

use App\Api\Id;
use App\HandOver\Kept\KeepNamed;
use App\HandOver\Package\PackageDefinition;
use App\HandOver\Package\PackagePage;
use App\HandOver\Package\PackageRepository;
use App\HandOver\Request\PackageRequest;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use Mensura\Fault\UnusableInput;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

/** What packages are to hold; they are written as every other file is. */
#[Route(Id::PROJECT.'/handover/packages')]
final class PackageController
{
    public function __construct(private readonly PackageRepository $packages, private readonly KeepNamed $keep)
    {
    }

    #[Route('', methods: 'GET')]
    public function list(#[Reads] Project $project, PackagePage $page): JsonResponse
    {
        return new JsonResponse($page->of($project));
    }

    #[Route('', methods: 'POST')]
    public function create(#[Changes] Project $project, #[MapRequestPayload] PackageRequest $request): JsonResponse
    {
        return $this->define($project, $request, null);
    }

    #[Route('/{package'.Id::NUMBER.'}', methods: 'PUT')]
    public function change(#[Changes] Project $project, int $package, #[MapRequestPayload] PackageRequest $request): JsonResponse
    {
        return $this->define($project, $request, $package);
    }

    #[Route('/{package'.Id::NUMBER.'}', methods: 'DELETE')]
    public function remove(#[Changes] Project $project, int $package): JsonResponse
    {
        return new JsonResponse($this->keep->remove($this->packages, $project, $package));
    }

    private function define(Project $project, PackageRequest $request, ?int $existing): JsonResponse
    {
        $definition = PackageDefinition::fromArray((array) $request);
        if ($definition->isEmpty()) {
            throw new UnusableInput('', 'nothing is in this package: choose points, lines, a surface or an alignment for it');
        }

        return new JsonResponse(['package' => $this->keep->keep($this->packages, $project, $request->name, $definition, $existing)]);
    }
}
