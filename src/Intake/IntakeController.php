<?php

declare(strict_types=1);

namespace App\Intake;

use App\Api\Download;
use App\Api\Id;
use App\Api\Problem;
use App\Api\Upload;
use App\Intake\Names\NameList;
use App\Intake\Request\AcceptRequest;
use App\Intake\Request\MeaningRequest;
use App\Intake\Request\NamesRequest;
use App\Intake\View\FileView;
use App\Intake\View\IntakeView;
use App\Ledger\Desk;
use App\Ledger\DoneBefore;
use App\Ledger\Operation;
use App\Project\Changes;
use App\Project\Project;
use App\Project\Reads;
use App\Store\FileStore;
use App\Survey\SurveyFile;
use App\Survey\SurveyFileRepository;
use Mensura\Exchange\Delimited\FileKind;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route(Id::PROJECT.'/intake')]
final class IntakeController
{
    public function __construct(
        private readonly SurveyFileRepository $files,
        private readonly Preview $preview,
        private readonly PreviewHandler $reader,
        private readonly IntakeOperations $operations,
        private readonly Desk $desk,
        private readonly FileStore $store,
    ) {
    }

    #[Route('', methods: 'GET')]
    public function list(#[Reads] Project $project): JsonResponse
    {
        return new JsonResponse(new IntakeView(array_map(static fn (SurveyFile $f): FileView => new FileView(
            $f->id(), $f->name(), $f->size(), $f->sha256(), $f->kind(), FileKind::tryFrom($f->kind())?->label() ?? 'not recognised',
            $f->state(), $f->records(), $f->leftOut(), $f->author()->name(), $f->receivedAt()->format('Y-m-d\TH:i:s\Z'),
            $f->acceptedAt()?->format('Y-m-d\TH:i:s\Z'),
        ), $this->files->of($project))));
    }

    #[Route('', methods: 'POST')]
    public function receive(#[Changes] Project $project, Request $request): JsonResponse
    {
        $upload = Upload::of($request);

        $receive = $this->operations->receive($upload->name, $upload->bytes(), $this->desk->member());
        $this->once($project, $receive);

        return $this->previewOf($project, $this->newest($project, $receive->sha256), 201);
    }

    /** A piece of a file too large for one request; with the last of them the file is received. */
    #[Route('/pieces', methods: 'POST')]
    public function piece(#[Changes] Project $project, Request $request, Pieces $pieces): JsonResponse
    {
        $upload = Upload::of($request);
        $of = $request->request;
        [$key, $at, $size] = [$of->getString('key'), (int) $of->getString('at'), (int) $of->getString('size')];
        if (null !== $hash = $pieces->arrived($project, $key)) {
            return $this->previewOf($project, $this->newest($project, $hash), 201);
        }
        $path = $pieces->take($project, $key, $at, $size, $upload);
        if (null === $path) {
            return new JsonResponse(['received' => $at + (int) filesize($upload->path)], 202);
        }
        $receive = $this->operations->take($upload->name, $path, $this->desk->member());

        $this->once($project, $receive);
        $pieces->kept($project, $key, $receive->sha256);

        return $this->previewOf($project, $this->newest($project, $receive->sha256), 201);
    }

    private function newest(Project $project, string $hash): SurveyFile
    {
        return $this->files->newestOf($project, $hash) ?? throw new NotFoundHttpException('The file was discarded meanwhile.');
    }

    /** The files of a zip, one entry of the ledger. */
    #[Route('/zip', methods: 'POST')]
    public function archive(#[Changes] Project $project, Request $request): JsonResponse
    {
        $upload = Upload::of($request);
        $this->once($project, $this->operations->archive($upload->name, $upload->path, $this->desk->member()));

        return $this->list($project);
    }

    /** Names of all waiting files that may be another mark's. */
    #[Route('/names', methods: 'GET')]
    public function names(#[Reads] Project $project, NameList $names): JsonResponse
    {
        return new JsonResponse($names->of($project));
    }

    #[Route('/{file'.Id::NUMBER.'}/names', methods: 'PUT')]
    public function call(#[Changes] Project $project, int $file, #[MapRequestPayload] NamesRequest $request): JsonResponse
    {
        $names = array_column($request->names, 'to', 'from');
        $this->once($project, $this->operations->call($this->file($project, $file)->id(), array_map(trim(...), $names)));

        return $this->show($project, $file);
    }

    #[Route('/{file'.Id::NUMBER.'}', methods: 'GET')]
    public function show(#[Reads] Project $project, int $file): JsonResponse
    {
        return $this->previewOf($project, $this->file($project, $file));
    }

    #[Route('/{file'.Id::NUMBER.'}/mapping', methods: 'PUT')]
    public function map(#[Changes] Project $project, int $file, Request $request): JsonResponse
    {
        $survey = $this->file($project, $file);
        $data = json_decode($request->getContent(), true, 8);
        if (null === $data && \JSON_ERROR_NONE !== json_last_error()) {
            return Problem::response(400, 'This request is not understood.', 'The body must be JSON.');
        }
        if (!$survey->isWaiting()) {
            return Problem::response(409, 'This file is accepted.', 'Undo its acceptance in the ledger, then map it again.');
        }
        $this->once($project, $this->operations->map($survey, \is_array($data) ? $data : []));

        return $this->show($project, $file);
    }

    /** Answers what the coordinates and heights of a waiting file mean. */
    #[Route('/{file'.Id::NUMBER.'}/meaning', methods: 'PUT')]
    public function mean(#[Changes] Project $project, int $file, #[MapRequestPayload] MeaningRequest $request): JsonResponse
    {
        $survey = $this->file($project, $file);
        if (!$survey->isWaiting()) {
            return Problem::response(409, 'This file is accepted.', 'Undo its acceptance in the ledger, then answer again.');
        }
        $this->once($project, $this->operations->mean($survey->id(), Meaning::fromArray((array) $request)));

        return $this->show($project, $file);
    }

    #[Route('/{file'.Id::NUMBER.'}/accept', methods: 'POST')]
    public function accept(#[Changes] Project $project, int $file, #[MapRequestPayload] AcceptRequest $request): JsonResponse
    {
        $survey = $this->file($project, $file);
        if ($survey->size() > AcceptHandler::MOST_AT_ONCE) {
            $payload = ['file' => $file, 'leaveOutBad' => $request->leaveOutBad];

            return new JsonResponse($this->desk->start($project, AcceptHandler::kind(), 'Accept '.$survey->name(), $payload), 202);
        }

        return new JsonResponse($this->desk->carryOut($project, $this->operations->accept($file, $request->leaveOutBad)));
    }

    #[Route('/{file'.Id::NUMBER.'}', methods: 'DELETE')]
    public function discard(#[Changes] Project $project, int $file): JsonResponse
    {
        return new JsonResponse($this->desk->carryOut($project, $this->operations->discard($this->file($project, $file)->id())));
    }

    #[Route('/{file'.Id::NUMBER.'}/source', methods: 'GET')]
    public function source(#[Reads] Project $project, int $file): Response
    {
        $survey = $this->file($project, $file);

        $type = FileKind::Photo->value === $survey->kind() ? 'image/jpeg' : 'text/plain; charset=utf-8';

        return Download::file($this->store->localPath($survey->sha256()), $survey->name(), $type);
    }

    /** The lines around one, as received. */
    #[Route('/{file'.Id::NUMBER.'}/lines/{line'.Id::NUMBER.'}', methods: 'GET')]
    public function lines(#[Reads] Project $project, int $file, int $line): JsonResponse
    {
        return new JsonResponse(SourceLines::around($this->store->get($this->file($project, $file)->sha256()), $line));
    }

    /** Sent again because its answer was lost, a request finds the work done and gets the same answer. */
    private function once(Project $project, Operation $operation): void
    {
        try {
            $this->desk->carryOut($project, $operation);
        } catch (DoneBefore) {
        }
    }

    /** The preview; of a large file the job that reads it, when it was not read before. */
    private function previewOf(Project $project, SurveyFile $file, int $status = 200): JsonResponse
    {
        if ($file->size() <= AcceptHandler::MOST_AT_ONCE) {
            return new JsonResponse($this->preview->of($file), $status);
        }
        if (null !== $kept = $this->reader->kept($project, $file)) {
            return new JsonResponse($kept, $status);
        }
        $payload = ['file' => $file->id()];
        $job = $this->desk->start($project, PreviewHandler::kind(), 'Read '.$file->name(), $payload);

        return new JsonResponse(['id' => $file->id()] + $job, 202);
    }

    private function file(Project $project, int $id): SurveyFile
    {
        return $this->files->in($project, $id) ?? throw new NotFoundHttpException('There is no such file in this project.');
    }
}
