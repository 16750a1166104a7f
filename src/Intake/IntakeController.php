<?php

declare(strict_types=1);

namespace App\Intake;

use App\Api\Problem;
use App\Intake\Request\AcceptRequest;
use App\Intake\Request\MeaningRequest;
use App\Intake\View\FileView;
use App\Intake\View\IntakeView;
use App\Intake\View\SourceLine;
use App\Ledger\Ledger;
use App\Project\Project;
use App\Project\ProjectAccess;
use App\Store\FileStore;
use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Mensura\Exchange\Delimited\DelimitedTable;
use Mensura\Exchange\Delimited\FileKind;
use Mensura\Exchange\Delimited\Mapping;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\MapRequestPayload;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[Route('/api/projects/{id<\d+>}')]
final class IntakeController
{
    private const MOST_BYTES = 64 * 1024 * 1024;

    public function __construct(
        private readonly ProjectAccess $access,
        private readonly EntityManagerInterface $entities,
        private readonly FileStore $store,
        private readonly Preview $preview,
        private readonly Placer $placer,
        private readonly Ledger $ledger,
        private readonly Connection $connection,
        private readonly ClockInterface $clock,
    ) {
    }

    #[Route('/intake', methods: 'GET')]
    public function list(int $id): JsonResponse
    {
        $project = $this->access->read($id);
        $files = $this->entities->getRepository(SurveyFile::class)->findBy(['project' => $project], ['id' => 'ASC']);

        return new JsonResponse(new IntakeView(array_map(static fn (SurveyFile $f): FileView => new FileView(
            $f->id(), $f->name(), $f->size(), $f->sha256(), $f->kind(), FileKind::tryFrom($f->kind())?->label() ?? 'not recognised', $f->state(), $f->records(), $f->leftOut(),
            $f->author()->name(), $f->receivedAt()->format('Y-m-d\TH:i:s\Z'), $f->acceptedAt()?->format('Y-m-d\TH:i:s\Z'),
        ), $files)));
    }

    #[Route('/intake', methods: 'POST')]
    public function receive(int $id, Request $request): JsonResponse
    {
        $project = $this->access->change($id);
        $upload = $request->files->get('file');
        if (!$upload instanceof UploadedFile || !$upload->isValid()) {
            $tooLarge = $upload instanceof UploadedFile && \in_array($upload->getError(), [\UPLOAD_ERR_INI_SIZE, \UPLOAD_ERR_FORM_SIZE], true);

            return $tooLarge ? $this->tooLarge() : Problem::response(400, 'No file arrived.', 'Send one file in the field "file"; it may have been cut off on the way.', [['pointer' => '/file', 'detail' => 'is missing']]);
        }
        if ($upload->getSize() > self::MOST_BYTES) {
            return $this->tooLarge();
        }
        $bytes = (string) file_get_contents($upload->getPathname());
        $name = mb_substr(preg_replace('/[\x00-\x1F\x7F\/\\\\]/', '_', mb_scrub($upload->getClientOriginalName())) ?? 'file', -255);
        $file = $this->keep($project, '' === $name ? 'file' : $name, $bytes);

        return new JsonResponse($this->preview->of($file), 201);
    }

    public function keep(Project $project, string $name, string $bytes): SurveyFile
    {
        try {
            $kind = Mapping::guess(DelimitedTable::parse($bytes))->kind->value;
        } catch (\Mensura\Fault\UnusableInput) {
            $kind = 'unknown';
        }
        $file = new SurveyFile($project, $name, $this->store->put($bytes), \strlen($bytes), $kind, $this->access->user(), $this->clock->now());
        $this->entities->persist($file);
        $this->entities->flush();

        return $file;
    }

    #[Route('/intake/{file<\d+>}', methods: 'GET')]
    public function show(int $id, int $file): JsonResponse
    {
        return new JsonResponse($this->preview->of($this->file($this->access->read($id), $file)));
    }

    #[Route('/intake/{file<\d+>}/mapping', methods: 'PUT')]
    public function map(int $id, int $file, Request $request): JsonResponse
    {
        $project = $this->access->change($id);
        $survey = $this->file($project, $file);
        $table = DelimitedTable::parse($this->store->get($survey->sha256()));
        try {
            $data = json_decode($request->getContent(), true, 8, \JSON_THROW_ON_ERROR);
        } catch (\JsonException) {
            return Problem::response(400, 'This request is not understood.', 'The body must be JSON.');
        }
        $data = \is_array($data) ? $data : [];
        // A new kind alone means: find its columns again.
        $mapping = isset($data['columns']) ? Mapping::fromArray($data, $table) : Mapping::forKind(FileKind::tryFrom((string) ($data['kind'] ?? '')) ?? FileKind::Points, $table);
        if (SurveyFile::WAITING !== $survey->state()) {
            return Problem::response(409, 'This file is accepted.', 'Undo its acceptance in the ledger, then map it again.');
        }
        $this->connection->update('survey_file', ['mapping' => json_encode($mapping->toArray(), \JSON_THROW_ON_ERROR), 'kind' => $mapping->kind->value], ['id' => $survey->id()]);
        $this->entities->refresh($survey);

        return new JsonResponse($this->preview->of($survey));
    }

    /** Answers what the coordinates and heights of a waiting file mean. */
    #[Route('/intake/{file<\d+>}/meaning', methods: 'PUT')]
    public function mean(int $id, int $file, #[MapRequestPayload] MeaningRequest $request): JsonResponse
    {
        $project = $this->access->change($id);
        $survey = $this->file($project, $file);
        if (SurveyFile::WAITING !== $survey->state()) {
            return Problem::response(409, 'This file is accepted.', 'Undo its acceptance in the ledger, then answer again.');
        }
        $this->connection->update('survey_file', ['meaning' => json_encode(Meaning::fromArray((array) $request)->toArray(), \JSON_THROW_ON_ERROR)], ['id' => $survey->id()]);
        $this->entities->refresh($survey);

        return new JsonResponse($this->preview->of($survey));
    }

    #[Route('/intake/{file<\d+>}/accept', methods: 'POST')]
    public function accept(int $id, int $file, #[MapRequestPayload] AcceptRequest $request): JsonResponse
    {
        $project = $this->access->change($id);
        $seq = $this->ledger->carryOut($project, $this->access->user()->name(), new AcceptFile($this->connection, $this->store, $this->placer, $this->file($project, $file), $request->leaveOutBad));

        return new JsonResponse(['seq' => $seq]);
    }

    #[Route('/intake/{file<\d+>}', methods: 'DELETE')]
    public function discard(int $id, int $file): JsonResponse
    {
        $project = $this->access->change($id);
        $seq = $this->ledger->carryOut($project, $this->access->user()->name(), new DiscardFile($this->file($project, $file)));

        return new JsonResponse(['seq' => $seq]);
    }

    #[Route('/intake/{file<\d+>}/source', methods: 'GET')]
    public function source(int $id, int $file): Response
    {
        $survey = $this->file($this->access->read($id), $file);

        return new Response($this->store->get($survey->sha256()), 200, [
            'Content-Type' => 'text/plain; charset=utf-8',
            'Content-Disposition' => HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $survey->name(), preg_replace('/[^A-Za-z0-9._-]/', '_', $survey->name()) ?? 'file'),
        ]);
    }

    /** The lines around one, as received. */
    #[Route('/intake/{file<\d+>}/lines/{line<\d+>}', methods: 'GET')]
    public function lines(int $id, int $file, int $line): JsonResponse
    {
        $bytes = $this->store->get($this->file($this->access->read($id), $file)->sha256());
        $all = preg_split('/\r\n|\n|\r/', mb_scrub($bytes)) ?: [];
        $around = [];
        for ($k = max(1, $line - 1); $k <= min(\count($all), $line + 1); ++$k) {
            $around[] = new SourceLine($k, mb_substr($all[$k - 1], 0, 400));
        }

        return new JsonResponse($around);
    }

    private function file(Project $project, int $id): SurveyFile
    {
        $file = $this->entities->find(SurveyFile::class, $id);
        if (null === $file || $file->project()->id() !== $project->id()) {
            throw new NotFoundHttpException('There is no such file in this project.');
        }

        return $file;
    }

    private function tooLarge(): JsonResponse
    {
        return Problem::response(413, 'The file is too large.', \sprintf('Files up to %d MB can be read.', intdiv(self::MOST_BYTES, 1024 * 1024)));
    }
}
