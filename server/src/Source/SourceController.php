<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Write;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\ProjectState;
use Plinth\Server\Source\Making\ImportPage;
use Plinth\Server\Source\Making\MatchPages;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

final readonly class SourceController
{
    public function __construct(
        private ProjectAccess $access,
        private ProjectState $state,
        private BringIn $bringIn,
        private FileStore $files,
        private MessageBusInterface $bus,
        private Connection $connection,
    ) {
    }

    #[Write]
    #[Route('/api/projects/{id}/sources', methods: ['POST'])]
    public function bringIn(Uuid $id, Request $request): Response
    {
        $this->access->writable($id);
        $file = $request->files->get('file');
        if (!$file instanceof UploadedFile) {
            throw Refusal::invalid('no-file', 'No file arrived. Choose a picture, a PDF, an SVG or a DXF.', 'file');
        }
        if (\in_array($file->getError(), [\UPLOAD_ERR_INI_SIZE, \UPLOAD_ERR_FORM_SIZE], true) || ($file->isValid() && $file->getSize() > BringIn::MOST_BYTES)) {
            throw Refusal::tooLarge('This file is larger than 200 MB. Scan it at a lower resolution, or save it as JPEG.', 'file');
        }
        if (!$file->isValid()) {
            throw Refusal::invalid('broken-upload', 'The file did not arrive whole. Bring it in again.', 'file');
        }
        $text = static fn (string $key): string => \is_string($value = $request->request->get($key)) ? trim($value) : '';
        $uuid = static fn (string $key): ?Uuid => '' === $text($key) ? null : RowValues::uuid(JsonValue::of($text($key), $key));
        $world = $request->files->get('world');
        $delivery = new Delivery(
            $file->getPathname(), $file->getClientOriginalName(), $uuid('storey'), $uuid('side'),
            $world instanceof UploadedFile && $world->isValid() ? (string) file_get_contents($world->getPathname(), false, null, 0, 4000) : null,
            $text('origin'), $text('address'), $uuid('replaces'), mayBeMoved: true,
        );
        $change = $this->bringIn->take($id, $this->access->user(), $delivery, RowValues::uuid(JsonValue::of($text('change'), 'change')));

        return $this->state->since($this->access->project($id), $this->access->user(), $change->revision() - 1, $change);
    }

    #[Write]
    #[Route('/api/pages/{id}/stop', methods: ['POST'])]
    public function stop(Uuid $id): Response
    {
        $page = $this->access->row(Page::class, $id);
        $this->connection->executeStatement('UPDATE page SET state = ? WHERE id = ? AND state IN (?, ?)', [PageState::Stopped->value, $page->id()->toBinary(), PageState::Waiting->value, PageState::Working->value]);

        return new Response(status: 204);
    }

    #[Write]
    #[Route('/api/pages/{id}/retry', methods: ['POST'])]
    public function retry(Uuid $id): Response
    {
        $page = $this->access->row(Page::class, $id);
        if (1 === $this->connection->executeStatement('UPDATE page SET state = ?, message = ? WHERE id = ? AND state IN (?, ?)', [PageState::Waiting->value, '', $page->id()->toBinary(), PageState::Failed->value, PageState::Stopped->value])) {
            $this->bus->dispatch(new ImportPage($page->id()->toRfc4122()));
        }

        return new Response(status: 204);
    }

    /** Points picked on the older page and on this one, to find how this one lies on it. */
    #[Write]
    #[Route('/api/pages/{id}/match', methods: ['POST'])]
    public function match(Uuid $id, Request $request): Response
    {
        $page = $this->access->row(Page::class, $id);
        if (null === $page->replaces()) {
            throw Refusal::invalid('replaces-nothing', 'This page was not brought in as a newer version of another.');
        }
        $pairs = [];
        foreach (JsonValue::parse($request->getContent())->object(['pairs'])->list('pairs') as $pair) {
            $both = $pair->object(['old', 'new']);
            $pairs[] = [...$both->get('old')->pair(), ...$both->get('new')->pair()];
        }
        if (\count($pairs) < 2 || hypot($pairs[0][0] - $pairs[1][0], $pairs[0][1] - $pairs[1][1]) < 10.0) {
            throw Refusal::invalid('too-few-points', 'Pick at least two points that lie far apart, each on both pages.', 'pairs');
        }
        $this->bus->dispatch(new MatchPages($page->id()->toRfc4122(), \array_slice($pairs, 0, 20)));

        return new Response(status: 204);
    }

    /** Exact lines of a line drawing, page pixels. */
    #[Route('/api/pages/{id}/lines', methods: ['GET'])]
    public function lines(Uuid $id): Response
    {
        return $this->files->served($this->access->row(Page::class, $id)->id(), 'lines.json', 'application/json');
    }

    #[Route('/api/pages/{id}/preview', methods: ['GET'])]
    public function preview(Uuid $id): Response
    {
        return $this->files->served($this->access->row(Page::class, $id)->id(), 'preview.jpg', 'image/jpeg');
    }

    #[Route('/api/pages/{id}/tiles/{z}/{y}/{x}', requirements: ['z' => '\d{1,2}', 'x' => '\d{1,4}', 'y' => '\d{1,4}'], methods: ['GET'])]
    public function tile(Uuid $id, int $z, int $y, int $x): Response
    {
        $page = $this->access->row(Page::class, $id);
        if (PageState::Ready !== $page->state()) {
            throw Refusal::notFound();
        }

        return $this->files->served($page->id(), \sprintf('tiles/%d/%d/%d%s', $z, $y, $x, $page->tileSuffix()), '.png' === $page->tileSuffix() ? 'image/png' : 'image/jpeg');
    }
}
