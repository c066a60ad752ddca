<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\Connection;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Recorder;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\FitKeeper;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Write;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\ProjectState;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Messenger\MessageBusInterface;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;
use Symfony\Component\Uid\UuidV7;

final readonly class SourceController
{
    public const MOST_BYTES = 200_000_000;
    public const MOST_PIXELS = 250_000_000;

    public function __construct(
        private ProjectAccess $access,
        private ProjectState $state,
        private Recorder $recorder,
        private FileStore $files,
        private PictureTool $tool,
        private MessageBusInterface $bus,
        private Connection $connection,
    ) {
    }

    #[Write]
    #[Route('/api/projects/{id}/sources', methods: ['POST'])]
    public function bringIn(Uuid $id, Request $request): Response
    {
        $this->access->project($id);
        $file = $request->files->get('file');
        if (!$file instanceof UploadedFile) {
            throw Refusal::invalid('no-file', 'No file arrived. Choose a JPEG or PNG picture.', 'file');
        }
        if (\in_array($file->getError(), [\UPLOAD_ERR_INI_SIZE, \UPLOAD_ERR_FORM_SIZE], true) || ($file->isValid() && $file->getSize() > self::MOST_BYTES)) {
            throw Refusal::tooLarge('This file is larger than 200 MB. Scan it at a lower resolution, or save it as JPEG.', 'file');
        }
        if (!$file->isValid()) {
            throw Refusal::invalid('broken-upload', 'The file did not arrive whole. Bring it in again.', 'file');
        }
        $form = [];
        foreach (['change', 'storey'] as $key) {
            $form[$key] = RowValues::uuid(JsonValue::of($request->request->get($key), $key));
        }

        return $this->takeIn($id, $file->getPathname(), self::cleanName($file->getClientOriginalName()), $form['change'], $form['storey']);
    }

    public function takeIn(Uuid $project, string $path, string $name, Uuid $changeId, Uuid $storey): Response
    {
        $mediaType = $this->mediaType($path);
        try {
            $picture = $this->tool->describe($path);
        } catch (PictureFailure $e) {
            throw Refusal::invalid('unreadable-picture', $e->getMessage(), 'file');
        }
        if ($picture['width'] < 1 || $picture['height'] < 1 || $picture['width'] * $picture['height'] > self::MOST_PIXELS) {
            throw Refusal::tooLarge(sprintf('This picture has %d × %d pixels; at most 250 million are taken in. Scan it at a lower resolution.', $picture['width'], $picture['height']), 'file');
        }
        $hash = $this->files->takeIn($path);
        $pageId = new UuidV7();
        $change = $this->recorder->record($project, $this->access->user(), $changeId, 'Bring in '.mb_substr($name, 0, 100), function (Workspace $workspace) use ($hash, $path, $name, $mediaType, $picture, $pageId, $storey): void {
            $sourceId = new UuidV7();
            $workspace->add(RowType::Source, $sourceId, ['name' => $name, 'sha256' => $hash, 'bytes' => (int) filesize($path), 'mediaType' => $mediaType], 'source');
            $page = $workspace->add(RowType::Page, $pageId, ['source' => $sourceId->toRfc4122(), 'number' => 1, 'width' => $picture['width'], 'height' => $picture['height'], 'resolution' => $picture['resolution']], 'page');
            $drawingId = new UuidV7();
            $workspace->add(RowType::Drawing, $drawingId, [
                'page' => $pageId->toRfc4122(), 'storey' => $storey->toRfc4122(), 'name' => pathinfo($name, \PATHINFO_FILENAME) ?: 'Drawing', 'kind' => DrawingKind::Plan->value,
                'left' => 0.0, 'top' => 0.0, 'width' => $picture['width'], 'height' => $picture['height'], 'fade' => 1.0,
            ], 'drawing');
            \assert($page instanceof Page);
            $workspace->add(RowType::Fit, $drawingId, DrawingFit::valuesOf(FitKeeper::guess($page), true, null), 'fit');
        });
        foreach ($change->touches() as $touch) {
            // A change sent twice is answered with the first one's page, whose job is under way.
            if ('page' === $touch['type'] && $touch['id'] === $pageId->toRfc4122()) {
                $this->bus->dispatch(new ImportPage($touch['id']));
            }
        }

        return $this->state->after($this->access->project($project), $this->access->user(), [$change], $change);
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

    #[Route('/api/pages/{id}/preview', methods: ['GET'])]
    public function preview(Uuid $id): Response
    {
        return $this->served($this->access->row(Page::class, $id), 'preview.jpg', 'image/jpeg');
    }

    #[Route('/api/pages/{id}/tiles/{z}/{y}/{x}', requirements: ['z' => '\d{1,2}', 'x' => '\d{1,4}', 'y' => '\d{1,4}'], methods: ['GET'])]
    public function tile(Uuid $id, int $z, int $y, int $x): Response
    {
        $page = $this->access->row(Page::class, $id);
        if (PageState::Ready !== $page->state()) {
            throw Refusal::notFound();
        }

        return $this->served($page, sprintf('tiles/%d/%d/%d%s', $z, $y, $x, $page->tileSuffix()), '.png' === $page->tileSuffix() ? 'image/png' : 'image/jpeg');
    }

    /** nginx sends the file; a page's pictures never change once they are there. */
    private function served(Page $page, string $file, string $type): Response
    {
        return new Response('', 200, ['X-Accel-Redirect' => $this->files->internalPath($page->id(), $file), 'Content-Type' => $type, 'Cache-Control' => 'private, max-age=31536000, immutable', 'X-Content-Type-Options' => 'nosniff']);
    }

    /** The content decides, not the name. */
    private function mediaType(string $path): string
    {
        $head = (string) file_get_contents($path, false, null, 0, 16);

        return match (true) {
            '' === $head => throw Refusal::invalid('empty-file', 'This file is empty. Copy or scan it again.', 'file'),
            str_starts_with($head, "\x89PNG\r\n\x1A\n") => 'image/png',
            str_starts_with($head, "\xFF\xD8\xFF") => 'image/jpeg',
            default => throw Refusal::invalid('not-a-picture', 'This is neither a JPEG nor a PNG picture, whatever its name says.', 'file'),
        };
    }

    private static function cleanName(string $name): string
    {
        $clean = trim((string) preg_replace('/[\x00-\x1F\x7F\/\\\\]+/u', ' ', mb_scrub($name)));

        return '' === $clean ? 'picture' : mb_substr($clean, 0, 200);
    }
}
