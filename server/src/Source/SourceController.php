<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Source\Making\MatchPages;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

final readonly class SourceController
{
    public function __construct(
        private ProjectAccess $access,
        private Arrivals $arrivals,
        private Pictures $pictures,
        private FileStore $files,
        private Jobs $jobs,
    ) {
    }

    #[Needs(Who::Editor)]
    #[Route('/api/projects/{project}/sources', methods: ['POST'])]
    public function bringIn(Uuid $project, Request $request): Response
    {
        $file = $request->files->get('file');
        if (!$file instanceof UploadedFile) {
            throw Refusal::invalid('no-file', 'No file arrived. Choose a picture, a PDF, an SVG or a DXF.', 'file');
        }
        if (
            \in_array($file->getError(), [\UPLOAD_ERR_INI_SIZE, \UPLOAD_ERR_FORM_SIZE], true)
            || ($file->isValid() && $file->getSize() > BringIn::MOST_BYTES)
        ) {
            throw Refusal::tooLarge('This file is larger than 200 MB. Scan it at a lower resolution, or save it as JPEG.', 'file');
        }
        if (\in_array($file->getError(), [\UPLOAD_ERR_CANT_WRITE, \UPLOAD_ERR_NO_TMP_DIR], true)) {
            throw Refusal::noRoom();
        }
        if (!$file->isValid()) {
            throw Refusal::invalid('broken-upload', 'The file did not arrive whole. Bring it in again.', 'file');
        }
        $text = static fn (string $key): string => \is_string($value = $request->request->get($key)) ? trim($value) : '';
        $uuid = static fn (string $key): ?Uuid => '' === $text($key) ? null : RowValues::uuid(JsonValue::of($text($key), $key));
        $world = $request->files->get('world');
        $delivery = new Delivery(
            $file->getPathname(), $file->getClientOriginalName(), $uuid('storey'), $uuid('side'),
            $world instanceof UploadedFile && $world->isValid() ? (string) file_get_contents(
                $world->getPathname(),
                false,
                null,
                0,
                4000,
            ) : null,
            $text('origin'), $text('address'), $uuid('replaces'),
        );

        return $this->arrivals->answer(
            $this->arrivals->receive($project, RowValues::uuid(JsonValue::of($text('change'), 'change')), $this->access->user(), $delivery),
            202,
        );
    }

    /** What has become of a file that was sent. */
    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/arrivals/{id}', methods: ['GET'])]
    public function arrival(Uuid $project, Uuid $id): Response
    {
        return $this->arrivals->answer($this->arrivals->of(new RowId($project, $id)));
    }

    /** Pictures that somebody has found missing, as after a restore of the database alone. */
    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/pages/{id}/pictures', methods: ['POST'])]
    public function remake(Uuid $project, Uuid $id): Response
    {
        $page = $this->access->row(Page::class, $project, $id);
        if ($this->pictures->areMissing($page)) {
            $this->pictures->make($page->key());
        }

        return new Response(status: 204);
    }

    /** Points picked on the older page and on this one, to find how this one lies on it. */
    #[Needs(Who::Editor)]
    #[Route('/api/projects/{project}/pages/{id}/match', methods: ['POST'])]
    public function match(Uuid $project, Uuid $id, Request $request): Response
    {
        $page = $this->access->row(Page::class, $project, $id);
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
        $this->jobs->ask(MatchPages::class, $page->key(), more: ['pairs' => \array_slice($pairs, 0, 20)]);

        return new Response(status: 204);
    }

    /** Exact lines of a line drawing, page pixels. */
    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/pages/{id}/lines', methods: ['GET'])]
    public function lines(Uuid $project, Uuid $id): Response
    {
        return $this->served($project, $id, LinesOfPages::FILE, 'application/json');
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/pages/{id}/preview', methods: ['GET'])]
    public function preview(Uuid $project, Uuid $id): Response
    {
        $page = $this->access->row(Page::class, $project, $id);
        if ($this->pictures->areMissing($page)) {
            throw Refusal::beingMade();
        }
        $folder = $this->files->pictures($page->key(), $page->pictures());
        $preview = $this->files->served(null === $folder ? $this->files->preview($page->key()) : $folder.'/preview.jpg', 'image/jpeg');
        // The same address shows what the page is read to next.
        $preview->headers->set('Cache-Control', 'private, max-age=60');

        return $preview;
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/pages/{id}/{version}/tiles/{z}/{y}/{x}', requirements: ['version' => '[0-9a-f]{16}', 'z' => '\d{1,2}', 'x' => '\d{1,4}', 'y' => '\d{1,4}'], methods: ['GET'])]
    public function tile(Uuid $project, Uuid $id, string $version, int $z, int $y, int $x): Response
    {
        $page = $this->access->row(Page::class, $project, $id);
        $folder = $this->files->pictures($page->key(), $version);
        if (null === $folder && $version === $page->pictures()) {
            throw Refusal::beingMade();
        }

        return $this->files->served(
            null === $folder ? null : \sprintf('%s/tiles/%d/%d/%d%s', $folder, $z, $y, $x, $page->tileSuffix()),
            '.png' === $page->tileSuffix() ? 'image/png' : 'image/jpeg',
        );
    }

    private function served(Uuid $project, Uuid $id, string $file, string $type): Response
    {
        $page = $this->access->row(Page::class, $project, $id);
        if ($this->pictures->areMissing($page)) {
            throw Refusal::beingMade();
        }
        $folder = $this->files->pictures($page->key(), $page->pictures());

        return $this->files->served(null === $folder ? null : "$folder/$file", $type);
    }
}
