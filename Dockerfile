FROM python:3.11-slim
WORKDIR /opt/teapot
COPY requirements/base.txt requirements/
RUN pip install --no-cache-dir -r requirements/base.txt && useradd --system teapot && install -d -o teapot /var/lib/teapot
COPY . .
ENV TEAPOT_DATA=/var/lib/teapot TEAPOT_COLLECTED=1
USER teapot
VOLUME /var/lib/teapot
EXPOSE 8000
CMD ["sh", "-c", "python manage.py migrate -v0 && python manage.py collectstatic --noinput -v0 && exec python -m teapot.serve --bind 0.0.0.0:8000"]
