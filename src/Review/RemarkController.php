<?php

declare(strict_types=1);

namespace App\Review;

use App\Api\Id;
use App\Ledger\Desk;
use App\Project\Project;
use App\Project\Reads;
use App\Project\Reviews;
use App\Review\Request\RemarkRequest;
use Mensura\Fault\UnusableInput;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/remarks')]
final class RemarkController
{
    private const POINT = 'point:';

    public function __construct(private readonly RemarkRepository $remarks, private readonly Checked $checked)
    {
    }

    #[Route('/{about}', requirements: ['about' => '.+'], methods: 'GET')]
    public function about(#[Reads] Project $project, string $about): JsonResponse
    {
        return new JsonResponse($this->checked->about($project, $about));
    }

    #[Route('', methods: 'POST')]
    public function say(#[Reviews] Project $project, #[MapRequestPayload] RemarkRequest $request, Desk $desk): JsonResponse
    {
        if ('' === trim($request->text) && !$request->checks) {
            throw new UnusableInput('/text', 'says nothing');
        }
        if (0 !== $request->answers && $this->remarks->in($project, $request->answers)?->about !== $request->about) {
            throw new UnusableInput('/answers', 'there is no such remark about this');
        }
        $isPoint = str_starts_with($request->about, self::POINT);
        $result = $isPoint ? null : $this->checked->result($project, $request->about);
        if (!$isPoint && null === $result) {
            throw new UnusableInput('/about', 'there is no such result');
        }
        $what = null === $result ? 'point '.substr($request->about, \strlen(self::POINT))
            : \sprintf('%s, run %d', $result->inWords(), $result->run);

        return new JsonResponse($desk->carryOut($project, new Say($this->remarks, $request, $what, $result->output ?? '')));
    }
}
